import { nanoid } from "nanoid";
import { z } from "zod";
import { readBpmn } from "@/core/bpmn";
import { readSheet } from "@/core/capture";
import { drawMissingPages } from "@/core/commands";
import { nameOf, participantsOf, processesOf } from "@/core/model";
import { decodeText } from "@/core/table";
import { directoryNames } from "./directoryNames";
import { addProcess } from "./home";
import { lock } from "./kernel/act";
import { id } from "./kernel/inputs";
import { longUseCase, UseCaseError } from "./useCase";

/** A name as long as one may be, cut between characters. */
const shortened = (name: string) => [...name].slice(0, 200).join("").slice(0, 200);

/** A BPMN file, or a step sheet as CSV, becomes a process; what could not be read says where and why, and nothing is made. */
export const importFile = longUseCase(
  z.object({
    name: z.string().min(1).max(300),
    area: id,
    bytes: z.instanceof(Uint8Array),
    /** Whether who asked for it has given up; asked when all is read and nothing is kept yet. */
    stopped: z.custom<() => Promise<boolean>>((value) => typeof value === "function").optional(),
  }),
  async (outside, input) => {
    const isTable = /\.(csv|tsv)$/i.test(input.name);
    const title = input.name.replace(/\.[^.]*$/, "") || "Imported process";
    const names = await outside.read(({ db }) => directoryNames(db));
    const newId = (of: string) => `${of}-${nanoid(8).replace(/[^A-Za-z0-9]/g, "x")}`;
    const read = isTable ? readSheet(decodeText(input.bytes), title, newId, names.resolve) : readBpmn(input.bytes);
    if (!read.ok) {
      const [problem] = read.problems;
      const place = problem?.column === undefined ? "" : ` (line ${problem.line}, column ${problem.column})`;
      throw new UseCaseError("unreadable", `${input.name}${place}: ${problem?.message}`, 422, read.problems);
    }
    const model = drawMissingPages(read.value);
    const pool = participantsOf(model).find((participant) => participant.processRef !== undefined);
    const named =
      processesOf(model)
        .map((process) => nameOf(model, process.id))
        .find(Boolean) ??
      (pool && nameOf(model, pool.id));
    if (await input.stopped?.()) throw new UseCaseError("stopped", `${input.name} was not opened: it was cancelled.`);
    return outside.write(async (context) => {
      await lock(context.db, "home");
      await lock(context.db, "directory");
      await names.save(context.db);
      return addProcess(context, { name: shortened(named || title), area: input.area }, model);
    });
  },
);
