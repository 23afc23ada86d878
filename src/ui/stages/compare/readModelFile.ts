import { reasons } from "../../messages";
import type { SideRef } from "./sides";

/** More than this is no diagram anybody drew. */
const mostBytes = 40 * 1024 * 1024;

/** Reads a BPMN file that is only looked at: nothing of it is stored. */
export async function readModelFile(file: File): Promise<SideRef> {
  const { text } = await import("../../messages");
  if (file.size > mostBytes) throw new Error(text.compare.tooLarge(file.name));
  const [{ readBpmn }, { drawMissingPages }] = await Promise.all([import("@/core/bpmn"), import("@/core/commands")]);
  const read = readBpmn(await file.text());
  if (!read.ok) throw new Error(`${file.name}: ${reasons(read.problems)}`);
  return { kind: "file", name: file.name, model: drawMissingPages(read.value) };
}
