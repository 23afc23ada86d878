import { files } from "@/contract";
import { type StoredModel, trustStored } from "@/core/model";
import { enterNames, namesIn } from "../directory/directoryNames";
import { addProcess } from "../home/processes";
import { lock } from "../kernel/act";
import { inThread } from "../kernel/threads";
import { longUseCase, UseCaseError } from "../kernel/useCase";

/** A name as long as one may be, cut between characters. */
const shortened = (name: string) => [...name].slice(0, 200).join("").slice(0, 200);

/** A BPMN file, or a step sheet as CSV, becomes a process; what could not be read says where and why, and nothing is made. */
export const importFile = longUseCase(files.importFile, async (outside, { name, area, bytes, signal }) => {
  const title = name.replace(/\.[^.]*$/, "") || "Imported process";
  const directory = await outside.read(({ db }) => namesIn(db));
  const read = await inThread("readFile", {}, { name, title, bytes, directory }, signal);
  if ("problems" in read) {
    const [problem] = read.problems;
    const place = problem?.column === undefined ? "" : ` (line ${problem.line}, column ${problem.column})`;
    throw new UseCaseError("unreadable", `${name}${place}: ${problem?.message}`, 422, read.problems);
  }
  const model = trustStored(JSON.parse(read.model) as StoredModel);
  return outside.write(async (context) => {
    if (signal?.aborted) throw new UseCaseError("stopped", `${name} was not opened: it was cancelled.`);
    await lock(context.db, "home");
    await enterNames(context.db, read.made);
    return addProcess(context, { name: shortened(read.named || title), area }, model);
  });
});
