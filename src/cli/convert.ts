import { writeFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { parseArgs } from "node:util";
import { writeBpmn } from "@/core/bpmn";
import { notInSheet, writeSheet } from "@/core/capture";
import { drawMissingPages, perform } from "@/core/commands";
import { type Model, pageName, processesOf, toStored } from "@/core/model";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/**
 * `lane convert IN OUT`, by the endings. `--draw` draws what has no diagram yet, `--tidy` lays every page out anew. Pictures and paper take `--scale`,
 * `--paper`, `--tile`, `--page` and `--no-legend`.
 */
export async function convert(args: readonly string[]): Promise<number> {
  const { values, positionals } = readOptions(args);
  const [from, to] = positionals;
  if (!from || !to || positionals.length > 2)
    throw new UnusableInput("convert needs the file to read and the file to write");
  const ending = extname(to).toLowerCase();
  const write = writers[ending];
  if (!write && !isPicture(ending))
    throw new UnusableInput(`${to}: the ending must be one of ${[...Object.keys(writers), ...pictures].join(", ")}`);
  const read = readModel(from);
  const drawn = values.draw ? drawMissingPages(read) : read;
  const model = values.tidy ? tidied(drawn, to) : drawn;
  const made = write ? write(model) : await pictured(model, from, ending, values);
  try {
    writeFileSync(callerPath(to), made);
  } catch {
    throw new UnusableInput(`${to}: the file cannot be written`);
  }
  return EXIT.done;
}

function tidied(model: Model, to: string): Model {
  let current = model;
  for (const { id } of model.diagrams) {
    const done = perform(current, { type: "tidy", diagram: id });
    if (!done.ok) throw new UnusableInput(`${to}: the page cannot be laid out: ${done.problems[0]?.message}`);
    current = done.value.model;
  }
  return current;
}

const pictures = [".svg", ".png", ".pdf"];
const isPicture = (ending: string) => pictures.includes(ending);

function readOptions(args: readonly string[]) {
  try {
    return parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        scale: { type: "string" },
        paper: { type: "string" },
        page: { type: "string" },
        tile: { type: "boolean" },
        draw: { type: "boolean" },
        tidy: { type: "boolean" },
        "no-legend": { type: "boolean" },
      },
    });
  } catch (error) {
    throw new UnusableInput(error instanceof Error ? error.message : String(error));
  }
}

async function pictured(
  model: Model,
  from: string,
  ending: string,
  values: ReturnType<typeof readOptions>["values"],
): Promise<Uint8Array> {
  const scale = Number(values.scale ?? 1);
  if (!(scale >= 1 && scale <= 4)) throw new UnusableInput("--scale takes a number from 1 to 4");
  const paper = values.paper ?? "A4";
  if (paper !== "A4" && paper !== "A3") throw new UnusableInput("--paper takes A4 or A3");
  const drawn = drawMissingPages(model);
  const pages = [...drawn.diagrams].sort((a, b) => a.order - b.order);
  const page = values.page === undefined ? pages[0] : pages[Number(values.page) - 1];
  if (!page)
    throw new UnusableInput(
      values.page === undefined ? "the model has nothing to draw" : `--page takes a number from 1 to ${pages.length}`,
    );
  // With the painters of pictures come programs that the other verbs do not need.
  const { pictureOf, PictureTooLarge } = await import("@/jobs/pictures");
  try {
    return await pictureOf(drawn, page, {
      format: ending.slice(1) as "svg" | "png" | "pdf",
      scale,
      paper,
      spread: values.tile ? "tile" : "fit",
      legend: !values["no-legend"],
      elements: [],
      title: pageName(drawn, page) || basename(from),
      detail: basename(from),
      date: new Date().toISOString(),
    });
  } catch (error) {
    if (error instanceof PictureTooLarge) throw new UnusableInput(error.message);
    throw error;
  }
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
};
