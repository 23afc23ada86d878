import { writeFileSync } from "node:fs";
import { extname } from "node:path";
import { writeBpmn } from "@/core/bpmn";
import { notInSheet, writeSheet } from "@/core/capture";
import { drawMissingPages } from "@/core/commands";
import { sceneOf, sceneToSvg } from "@/core/drawing";
import { type Model, processesOf, toStored } from "@/core/model";
import { embeddedFonts } from "@/server/fonts";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/** `lane convert IN OUT`, by the endings. */
export function convert(args: readonly string[]): number {
  const [from, to] = args;
  if (!from || !to || args.length > 2) throw new UnusableInput("convert needs the file to read and the file to write");
  const write = writers[extname(to).toLowerCase()];
  if (!write) throw new UnusableInput(`${to}: the ending must be one of ${Object.keys(writers).join(", ")}`);
  const text = write(readModel(from));
  try {
    writeFileSync(callerPath(to), text);
  } catch {
    throw new UnusableInput(`${to}: the file cannot be written`);
  }
  return EXIT.done;
}

const writers: { readonly [ending: string]: (model: Model) => string } = {
  ".bpmn": writeBpmn,
  ".json": (model) => `${JSON.stringify(toStored(model), null, 2)}\n`,
  ".csv": (model) => {
    const process = processesOf(model)[0]?.id;
    if (process === undefined) throw new UnusableInput("the model has no process to write as a sheet");
    const left = notInSheet(model, process);
    if (left.length > 0) globalThis.process.stderr.write(`lane: not in the sheet: ${left.join(", ")}\n`);
    return writeSheet(model, process);
  },
  ".svg": (model) => {
    const drawn = drawMissingPages(model);
    const [page] = [...drawn.diagrams].sort((a, b) => a.order - b.order);
    if (!page) throw new UnusableInput("the model has nothing to draw");
    return sceneToSvg(sceneOf(drawn, page), { title: page.name, fonts: embeddedFonts() });
  },
};
