import { caseDataOf } from "@/core/feel";
import { flowNodesIn, type Id, type Model, nameOf, processesOf, processOf } from "@/core/model";
import { walk as play, type WalkChoices, worldWith } from "@/core/tokens";
import { decisionsFor, EXIT, readModel, UnusableInput } from "./input";

/**
 * `lane walk FILE.bpmn [--start EVENT] [--choose GATEWAY=FLOW[+FLOW]]… [--fire BOUNDARY]… [--times ACTIVITY=N]… [--data NAME=VALUE]…
 * [--decisions FILE.dmn]… [--together]`.
 */
export function walk(args: readonly string[], json: boolean): number {
  const files: string[] = [];
  const choose = new Map<Id, (readonly Id[])[]>();
  const fire: Id[] = [];
  const times = new Map<Id, readonly number[]>();
  const data: { [name: string]: string } = {};
  const decisionFiles: string[] = [];
  let start: Id | undefined;
  let together = false;
  for (let at = 0; at < args.length; at++) {
    const word = args[at] as string;
    if (!word.startsWith("--")) {
      files.push(word);
      continue;
    }
    if (word === "--together") {
      together = true;
      continue;
    }
    const value = args[++at];
    if (value === undefined) throw new UnusableInput(`${word} needs a value behind it`);
    if (word === "--start") start = value;
    else if (word === "--decisions") decisionFiles.push(value);
    else if (word === "--fire") fire.push(value);
    else if (word === "--choose") {
      const [gateway = "", flows = ""] = value.split(/=(.*)/s);
      if (!gateway || !flows) throw new UnusableInput(`--choose ${value}: write GATEWAY=FLOW, or GATEWAY=FLOW+FLOW`);
      choose.set(gateway, [...(choose.get(gateway) ?? []), flows.split("+")]);
    } else if (word === "--times") {
      const [activity = "", count = ""] = value.split(/=(.*)/s);
      if (!/^[1-9]\d{0,3}$/.test(count))
        throw new UnusableInput(`--times ${value}: write ACTIVITY=N, N from 1 to 9999`);
      times.set(activity, [...(times.get(activity) ?? []), Number(count)]);
    } else if (word === "--data") {
      const [name = "", given] = value.split(/=(.*)/s);
      if (!name || given === undefined) throw new UnusableInput(`--data ${value}: write NAME=VALUE`);
      data[name] = given;
    } else
      throw new UnusableInput(
        `walk knows no ${word}; there are --start, --choose, --fire, --times, --data, --decisions and --together`,
      );
  }
  const [file] = files;
  if (!file || files.length > 1) throw new UnusableInput("walk needs one file");
  const model = readModel(file);
  known(model, file, start === undefined ? fire : [start, ...fire]);
  for (const [gateway, visits] of choose) {
    known(model, file, [gateway]);
    for (const flow of visits.flat())
      if (model.elements.get(flow)?.sourceRef !== gateway)
        throw new UnusableInput(`${file}: ${flow} is no flow that leaves ${gateway}`);
  }
  known(model, file, [...times.keys()]);
  const world = worldWith(model, new Map(), together, decisionsFor(model, decisionFiles));
  const walked = play(world, processFor(model, file, start), {
    ...(start && { start }),
    choose,
    times,
    data: caseDataOf(data),
    fire: fire.map((element) => ({ element })),
  } satisfies WalkChoices);
  const { outcome, entered, left } = walked;
  const answer = {
    outcome,
    entered,
    log: walked.log.map(({ step, element, event }) => ({ step, element, event })),
    left,
  };
  if (json) process.stdout.write(`${JSON.stringify(answer, null, 2)}\n`);
  else {
    for (const { step, element, event } of walked.log)
      process.stdout.write(`${String(step).padStart(5)}  ${event.padEnd(7)} ${nameOf(model, element) || element}\n`);
    const left = walked.left.map((id) => nameOf(model, id) || id).join(", ");
    process.stdout.write(`${walked.outcome}${left ? `, with tokens left at ${left}` : ""}\n`);
  }
  return walked.outcome === "completed" ? EXIT.done : EXIT.no;
}

function known(model: Model, file: string, ids: readonly Id[]): void {
  for (const id of ids)
    if (!model.elements.has(id)) throw new UnusableInput(`${file}: there is no element "${id}" in this file`);
}

/** The process of the start event that was named, else the first that has steps. */
function processFor(model: Model, file: string, start: Id | undefined): Id {
  const process =
    start === undefined
      ? processesOf(model).find((one) => flowNodesIn(model, one.id).length > 0)
      : processOf(model, start);
  if (!process) throw new UnusableInput(`${file}: there is no process with steps in this file`);
  return process.id;
}
