import {
  type Decided,
  type Decision,
  type DecisionModel,
  decide as decided,
  isFaultyOverlap,
  proveTable,
  topDecisions,
} from "@/core/decisions";
import { EXIT, readDecisionFile, readJson, UnusableInput } from "./input";

/** `lane decide FILE.dmn`: what a decision comes to on data, or what its tables leave out and say twice. */
export function decide(args: readonly string[], json: boolean): number {
  const [file, ...rest] = args;
  if (!file || file.startsWith("--")) throw new UnusableInput("decide needs a DMN file");
  let [wanted, data, isCheck]: [string | undefined, string | undefined, boolean] = [undefined, undefined, false];
  for (let at = 0; at < rest.length; at++) {
    const value = () => {
      const next = rest[++at];
      if (next === undefined) throw new UnusableInput(`${rest[at - 1]} needs a value`);
      return next;
    };
    if (rest[at] === "--decision") wanted = value();
    else if (rest[at] === "--data") data = value();
    else if (rest[at] === "--check") isCheck = true;
    else throw new UnusableInput(`decide does not know "${rest[at]}"`);
  }
  if (isCheck === (data !== undefined))
    throw new UnusableInput("decide takes --data JSON, --data @FILE.json or --check");
  const model = readDecisionFile(file);
  if (isCheck) return check(file, model, wanted, json);
  const decision = chosen(file, model, wanted);
  const given = dataOf(data ?? "");
  const now = new Date().toISOString();
  const results = (Array.isArray(given) ? given : [given]).map((one) => decided(model, decision, one, { now }));
  if (json) process.stdout.write(`${JSON.stringify(Array.isArray(given) ? { results } : results[0], null, 2)}\n`);
  else for (const one of results) tell(decision, one);
  return results.some(({ problems }) => problems.length > 0) ? EXIT.no : EXIT.done;
}

const list = (decisions: readonly Decision[]) => decisions.map(({ name, id }) => name || id).join(", ");

/** The decision that is named, by its id or its name; without a name the one that no other requires. */
function chosen(file: string, model: DecisionModel, wanted: string | undefined): Decision {
  const all = [...model.decisions.values()];
  if (wanted !== undefined) {
    const found = model.decisions.get(wanted) ?? all.find(({ name }) => name === wanted);
    if (!found) throw new UnusableInput(`${file}: there is no decision "${wanted}"; there are ${list(all) || "none"}`);
    return found;
  }
  const top = topDecisions(model);
  const [only, ...more] = top;
  if (only && more.length === 0) return only;
  throw new UnusableInput(
    top.length === 0
      ? `${file}: there is no decision that no other requires`
      : `${file}: several decisions are required by no other: ${list(top)}; name one with --decision`,
  );
}

type Data = { readonly [name: string]: unknown };
const isData = (value: unknown): value is Data => typeof value === "object" && value !== null && !Array.isArray(value);

function dataOf(said: string): Data | readonly Data[] {
  const { value, where } = readJson(said, "--data");
  if (isData(value) || (Array.isArray(value) && value.every(isData))) return value;
  throw new UnusableInput(`${where}: data is an object with a value for each input, or a list of such`);
}

function tell({ name, id }: Decision, { result, rules, problems }: Decided): void {
  process.stdout.write(`${name || id}: ${JSON.stringify(result)}\n`);
  if (rules.length > 0) process.stdout.write(`  by rule ${rules.join(", ")}\n`);
  for (const problem of problems) process.stdout.write(`  ${problem}\n`);
}

function check(file: string, model: DecisionModel, wanted: string | undefined, json: boolean): number {
  const decisions = wanted === undefined ? [...model.decisions.values()] : [chosen(file, model, wanted)];
  const tables = decisions.flatMap((decision) =>
    decision.logic.kind === "table" ? [proveTable(model, decision, decision.logic)] : [],
  );
  if (json) process.stdout.write(`${JSON.stringify({ tables }, null, 2)}\n`);
  else
    for (const { decision, complete, gaps, overlaps, hidden, problems } of tables) {
      process.stdout.write(
        `${decision}: ${complete === null ? "cannot be told" : complete ? "complete" : "has gaps"}\n`,
      );
      for (const { when } of gaps) process.stdout.write(`  no rule for ${when}\n`);
      for (const { rules, conflict } of overlaps)
        process.stdout.write(`  rules ${rules.join(" and ")} overlap${conflict ? ", with other outputs" : ""}\n`);
      for (const rule of hidden) process.stdout.write(`  rule ${rule} is never come to\n`);
      for (const problem of problems) process.stdout.write(`  ${problem}\n`);
    }
  const isWrong = tables.some(
    ({ hitPolicy, gaps, overlaps, hidden }) =>
      gaps.length > 0 || hidden.length > 0 || overlaps.some(({ conflict }) => isFaultyOverlap(hitPolicy, conflict)),
  );
  return isWrong ? EXIT.no : EXIT.done;
}
