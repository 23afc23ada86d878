import { writeFileSync } from "node:fs";
import { writeBpmn } from "@/core/bpmn";
import { compareModels } from "@/core/compare";
import { mergeModels } from "@/core/merge";
import { counted } from "@/core/model";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/** `lane merge BASE.bpmn OURS.bpmn THEIRS.bpmn OUT.bpmn`: conflicts are told and stay as ours; what neither needs goes. */
export function merge(args: readonly string[], json: boolean): number {
  const [base, ours, theirs, out] = args;
  if (!base || !ours || !theirs || !out || args.length > 4)
    throw new UnusableInput("merge needs the common file, ours, theirs, and the file to write");
  const [from, mine, other] = [readModel(base), readModel(ours), readModel(theirs)];
  const { model, conflicts } = mergeModels(from, mine, other);
  try {
    writeFileSync(callerPath(out), writeBpmn(model));
  } catch {
    throw new UnusableInput(`${out}: the file cannot be written`);
  }
  const merged = {
    ours: compareModels(from, mine, "id").changes.length,
    theirs: compareModels(from, other, "id").changes.length,
    unchanged: compareModels(from, model, "id").unchanged,
  };
  if (json) {
    const told = conflicts.map(({ element, field, ours: own, theirs: their }) => ({
      element,
      field,
      ours: own,
      theirs: their,
    }));
    process.stdout.write(`${JSON.stringify({ merged, conflicts: told }, null, 2)}\n`);
  } else {
    for (const { name, field, ours: own, theirs: their } of conflicts)
      process.stdout.write(
        `conflict ${name}: ${field} is ${words(own)} in ours and ${words(their)} in theirs; ours was kept\n`,
      );
    process.stdout.write(
      `${counted(merged.ours, "change")} of ours, ${merged.theirs} of theirs, ${counted(conflicts.length, "conflict")}\n`,
    );
  }
  return conflicts.length > 0 ? EXIT.no : EXIT.done;
}

const words = (value: unknown) => (typeof value === "string" ? `"${value}"` : JSON.stringify(value));
