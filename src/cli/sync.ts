import { writeFileSync } from "node:fs";
import { decodeXml, encodeXmlLike } from "@/core/bpmn";
import { syncModels } from "@/core/handoff";
import { toldMerge, writeMerge } from "./conflicts";
import { callerPath, EXIT, readBytes, readModel, UnusableInput } from "./input";

/**
 * `lane sync MODEL.bpmn BUILD.bpmn --base LAST.bpmn OUT.bpmn`: says which side changed since the last sync, and writes the build copy's
 * own text with what the model changed. Conflicts are told and stay as the model has them.
 */
export function sync(args: readonly string[], json: boolean): number {
  const at = args.indexOf("--base");
  const last = at < 0 ? undefined : args[at + 1];
  const [model, build, out, ...more] = at < 0 ? args : [...args.slice(0, at), ...args.slice(at + 2)];
  if (!last || !model || !build || !out || more.length > 0)
    throw new UnusableInput(
      "sync needs the model, the build copy, --base with the file of the last sync, and the file to write",
    );
  const bytes = readBytes(build);
  const [base, ours, theirs] = [readModel(last), readModel(model), readModel(build)];
  const text = decodeXml(bytes);
  if (!text.ok) throw new UnusableInput(`${build}: ${text.problems[0]?.message}`);
  const synced = syncModels(base, ours, { text: text.value, model: theirs });
  try {
    writeFileSync(callerPath(out), encodeXmlLike(bytes, synced.text));
  } catch {
    throw new UnusableInput(`${out}: the file cannot be written`);
  }
  const told = toldMerge([base, ours, theirs, synced.model], synced.conflicts);
  if (json) process.stdout.write(`${JSON.stringify({ state: synced.state, ...told }, null, 2)}\n`);
  else {
    process.stdout.write(`${synced.state}: `);
    writeMerge(told, synced.conflicts, ["the model", "the build copy"]);
  }
  return synced.conflicts.length > 0 ? EXIT.no : EXIT.done;
}
