import { writeFileSync } from "node:fs";
import { writeBpmn } from "@/core/bpmn";
import { alignedTo, mergeModels } from "@/core/merge";
import { toldMerge, writeMerge } from "./conflicts";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/** `lane merge BASE.bpmn OURS.bpmn THEIRS.bpmn OUT.bpmn`: conflicts are told and stay as ours; what neither needs goes. */
export function merge(args: readonly string[], json: boolean): number {
  const [base, ours, theirs, out] = args;
  if (!base || !ours || !theirs || !out || args.length > 4)
    throw new UnusableInput("merge needs the common file, ours, theirs, and the file to write");
  const mine = readModel(ours);
  const [from, other] = [alignedTo(readModel(base), mine), alignedTo(readModel(theirs), mine)];
  const { model, conflicts } = mergeModels(from, mine, other);
  try {
    writeFileSync(callerPath(out), writeBpmn(model));
  } catch {
    throw new UnusableInput(`${out}: the file cannot be written`);
  }
  const told = toldMerge([from, mine, other, model], conflicts);
  if (json) process.stdout.write(`${JSON.stringify(told, null, 2)}\n`);
  else writeMerge(told, conflicts, ["ours", "theirs"]);
  return conflicts.length > 0 ? EXIT.no : EXIT.done;
}
