import { listOf, type Said, say, withCommas } from "../../messages";
import { called, type Element, type Id, type Model, nameOf, participantsOf } from "../../model";
import { collaborationsOf, type LeftOut, type StuckRun } from "../collaboration";
import { type Found, type Rule, saidOf } from "../finding";

/** A pool by its name, or by what its process is called. */
function poolName(model: Model, process: Id): string {
  const pool = participantsOf(model).find((one) => one.processRef === process);
  const name = (pool && nameOf(model, pool.id)) || nameOf(model, process);
  return name ? `“${name}”` : "another pool";
}

/** Processes of a stuck run that wait for each other in a round: each for one that is itself waiting. */
function inARound({ waiting }: StuckRun): Set<Id> {
  const waitsFor = new Map<Id, Set<Id>>();
  for (const { process, senders } of waiting)
    waitsFor.set(process, new Set([...(waitsFor.get(process) ?? []), ...senders]));
  const reaches = (from: Id, to: Id, seen: Set<Id> = new Set()): boolean =>
    [...(waitsFor.get(from) ?? [])].some(
      (next) => next === to || (!seen.has(next) && waitsFor.has(next) && reaches(next, to, seen.add(next))),
    );
  return new Set([...waitsFor.keys()].filter((process) => reaches(process, process)));
}

const stuckRuns = (model: Model): readonly StuckRun[] => collaborationsOf(model).flatMap(({ stuck }) => stuck);

export const collaborationDeadlock: Rule = {
  id: "collaboration-deadlock",
  group: "behaviour",
  severity: "error",
  wants: say`No two pools wait for each other's message.`,
  find: (model) => {
    const known = new Set<string>();
    return stuckRuns(model).flatMap((run): Found[] => {
      const round = inARound(run);
      const waiting = run.waiting.filter(({ process }) => round.has(process));
      const elements = [...new Set(waiting.map(({ node }) => node))];
      const key = elements.join("\n");
      if (waiting.length === 0 || known.has(key)) return [];
      known.add(key);
      const told = waiting
        .slice(0, 3)
        .map(
          ({ node, process }) =>
            say`${poolName(model, process)} at ${called(model, model.elements.get(node) as Element)}`,
        );
      return [
        {
          elements,
          message: say`Pools wait for each other's message for ever: ${withCommas(told)}. Let one of them send before it waits.`,
          witness: run.witness,
        },
      ];
    });
  },
};

export const messageNeverArrives: Rule = {
  id: "message-never-arrives",
  group: "behaviour",
  severity: "error",
  wants: say`A message that a pool waits for is sent on every run of the pool it comes from.`,
  find: (model) => {
    const known = new Set<Id>();
    return stuckRuns(model).flatMap((run) => {
      const round = inARound(run);
      return run.waiting.flatMap(({ node, process, senders }): Found[] => {
        const element = model.elements.get(node);
        // One who waits for somebody that waits in turn is told of where that one waits.
        const isOpen = senders.some((sender) => run.waiting.some((one) => one.process === sender));
        if (!element || round.has(process) || isOpen || known.has(node)) return [];
        known.add(node);
        const from = listOf(
          senders.map((sender) => poolName(model, sender)),
          "or",
        );
        return [
          {
            elements: [node],
            message: say`${saidOf(model, element)} waits for a message that ${from.text === "" ? say`its sender` : from} does not send on this run: it ends, or never begins, without it. Send it on every way, or let the wait end by a deadline.`,
            witness: run.witness,
          },
        ];
      });
    });
  },
};

const leftOut: { readonly [what in LeftOut]: Said } = {
  "begun again": say`that one of them is begun again while it is under way`,
  "piled up": say`that messages pile up unread`,
  "too many states": say`more states than can be looked at`,
};

export const collaborationUnknown: Rule = {
  id: "collaboration-unknown",
  group: "behaviour",
  severity: "advice",
  wants: say`What pools do together is known: all that can happen between them was looked at.`,
  find: (model) =>
    collaborationsOf(model)
      .filter((one) => one.leftOut.length > 0 && one.stuck.length === 0)
      .map((one) => ({
        elements: [...one.processes],
        message: say`Whether ${listOf(one.processes.map((process) => poolName(model, process)))} can wait for each other for ever was looked at in part. Left out: ${listOf(one.leftOut.map((what) => leftOut[what]))}.`,
      })),
};
