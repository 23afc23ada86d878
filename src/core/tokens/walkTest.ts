import { z } from "zod";
import { capital, listOf, type Said, say, withCommas } from "../messages";
import { called, type Id, type Model, nameOf } from "../model";
import type { WalkChoices } from "./choices";
import { type Walked, walk } from "./walk";
import { modelsOf, type World } from "./world";

const id = z.string().min(1).max(500);
const visits = <Entry extends z.ZodType>(entry: Entry) => z.array(z.tuple([id, z.array(entry).max(10_000)])).max(5_000);

/** A walk that is kept: what it was told, and what is to come of it. */
export const walkTestSchema = z.object({
  process: id,
  told: z.object({
    start: id.optional(),
    choose: visits(z.array(id).max(100)).default([]),
    times: visits(z.number().int().min(1).max(1_000)).default([]),
    fire: z
      .array(z.object({ element: id, after: z.object({ element: id, times: z.number().int() }).optional() }))
      .default([]),
    data: z.record(z.string(), z.unknown()).optional(),
  }),
  outcome: z.enum(["completed", "stuck", "stopped"]),
  /** The elements it passes and how often; null where only the outcome matters. */
  path: z.array(z.tuple([id, z.number().int().min(1)])).nullable(),
  /** What the elements it is about were called, so that one that is gone can still be named. */
  names: z.array(z.tuple([id, z.string().max(1_000)])).optional(),
});
export type WalkTest = z.infer<typeof walkTestSchema>;

/** A walk as it is kept. */
export function testOf(
  world: World,
  process: Id,
  walked: Pick<Walked, "told" | "outcome" | "entered">,
  keepsPath: boolean,
): WalkTest {
  const { start, choose, times, fire, data } = walked.told;
  const about = new Set([
    process,
    ...(start === undefined ? [] : [start]),
    ...[...(choose ?? [])].flatMap(([node, flows]) => [node, ...flows.flat()]),
    ...(fire ?? []).map(({ element }) => element),
    ...walked.entered.map(({ element }) => element),
  ]);
  const models = modelsOf(world);
  const names = [...about].flatMap((one): [Id, string][] => {
    const model = models.find((candidate) => candidate.elements.has(one));
    const name = model ? nameOf(model, one) : "";
    return name ? [[one, name.slice(0, 1_000)]] : [];
  });
  return {
    process,
    told: {
      ...(start !== undefined && { start }),
      choose: [...(choose ?? [])].map(([node, flows]) => [node, flows.map((one) => [...one])]),
      times: [...(times ?? [])].map(([node, counts]) => [node, [...counts]]),
      fire: (fire ?? []).map((one) => ({ ...one })),
      ...(data && { data: { ...data } }),
    },
    outcome: walked.outcome,
    path: keepsPath ? walked.entered.map(({ element, times: count }) => [element, count]) : null,
    names,
  };
}

export const choicesOf = ({ told }: WalkTest): WalkChoices => ({
  ...(told.start !== undefined && { start: told.start }),
  choose: new Map(told.choose),
  times: new Map(told.times),
  fire: told.fire.map(({ element, after }) => ({ element, ...(after && { after }) })),
  ...(told.data && { data: told.data }),
});

export interface WalkTestResult {
  /** As expected; by another path or to another outcome; or no longer possible, since something it names is gone. */
  readonly verdict: "passes" | "differs" | "gone";
  /** What is otherwise than expected, a sentence each. */
  readonly differences: readonly Said[];
  /** The elements these are about. */
  readonly elements: readonly Id[];
  /** How it went, where it could be played. */
  readonly walked?: Pick<Walked, "outcome" | "entered">;
}

const outcomeWords = {
  completed: say`comes to its end`,
  stuck: say`gets stuck`,
  stopped: say`goes on for ever`,
} as const;

/** Plays a kept walk again on a model as it is now, and says what is otherwise. */
export function runWalkTest(world: World, test: WalkTest): WalkTestResult {
  const { model } = world;
  const named = [
    test.told.start,
    ...test.told.choose.map(([node]) => node),
    ...test.told.fire.map((one) => one.element),
  ];
  const models = modelsOf(world);
  const words = wordsIn(models, new Map(test.names));
  const elementOf = (one: Id) => models.find((candidate) => candidate.elements.has(one))?.elements.get(one);
  const gone = [test.process, ...named].filter((one) => one !== undefined && !elementOf(one)) as Id[];
  const lost = test.told.choose.flatMap(([node, flows]) =>
    gone.includes(node)
      ? []
      : flows.flat().flatMap((flow) => (elementOf(flow)?.sourceRef === node ? [] : [{ node, flow }])),
  );
  if (gone.length > 0 || lost.length > 0) {
    const then = new Map(test.names);
    const waysLost = new Map(lost.map((one) => [one.flow, one]));
    return {
      verdict: "gone",
      differences: [
        ...(gone.length > 0
          ? [say`It names ${listOf(gone.map(words))}, which is no longer there. Play it again and keep it anew.`]
          : []),
        ...[...waysLost.values()].map(({ node, flow }) => {
          const way = then.get(flow);
          return way
            ? say`The way “${way}” it takes at ${words(node)} is gone. Play it again and keep it anew.`
            : say`A way it takes at ${words(node)} is gone. Play it again and keep it anew.`;
        }),
      ],
      elements: [...new Set(lost.map(({ node }) => node))],
    };
  }
  const walked = walk(world, test.process, choicesOf(test));
  const differences: Said[] = [];
  const elements: Id[] = [];
  if (walked.outcome !== test.outcome) {
    const where = walked.left.length > 0 ? say` at ${withCommas(walked.left.slice(0, 3).map(words))}` : say``;
    differences.push(
      say`The case ${outcomeWords[walked.outcome]}${where}; expected was that it ${outcomeWords[test.outcome]}.`,
    );
    elements.push(...walked.left);
  }
  if (test.path) {
    const now = new Map(walked.entered.map(({ element, times }) => [element, times]));
    const then = new Map(test.path);
    for (const element of new Set([...then.keys(), ...now.keys()])) {
      const was = then.get(element) ?? 0;
      const is = now.get(element) ?? 0;
      if (was === is) continue;
      elements.push(element);
      const name = capital(words(element));
      differences.push(
        is === 0
          ? say`${name} is no longer passed.`
          : was === 0
            ? say`${name} is passed now.`
            : say`${name} is passed ${timesWords(is)}; it was ${timesWords(was)}.`,
      );
    }
  }
  return {
    verdict: differences.length === 0 ? "passes" : "differs",
    differences,
    elements: elements.filter((one) => model.elements.has(one)),
    walked: { outcome: walked.outcome, entered: walked.entered },
  };
}

const timesWords = (count: number): Said => (count === 1 ? say`once` : count === 2 ? say`twice` : say`${count} times`);
const wordsIn =
  (models: readonly Model[], then: ReadonlyMap<Id, string>) =>
  (node: Id): Said => {
    const model = models.find((one) => one.elements.has(node));
    const element = model?.elements.get(node);
    if (model && element) return called(model, element);
    const name = then.get(node);
    return name ? say`what was called “${name}”` : say`an element without a name`;
  };
