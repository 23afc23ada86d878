import { writeFileSync } from "node:fs";
import { basename, extname } from "node:path";
import { parseArgs } from "node:util";
import { type BookletKind, bookletKinds } from "@/core/booklet";
import {
  type HandbookPart,
  handbookOf,
  handbookParts,
  languageToTell,
  nameOfModel,
  sentencesIn,
} from "@/core/handbook";
import { isFlowNode, languagesOf, type Model } from "@/core/model";
import { bookletFile } from "@/jobs/booklets";
import { callerPath, EXIT, readModel, UnusableInput } from "./input";

/** `lane handbook FILE.bpmn OUT.pdf|.docx|.html|.md [--language LANG]`. */
export async function handbook(args: readonly string[], json: boolean): Promise<number> {
  const { values, positionals } = options(args);
  const [from, to] = positionals;
  if (!from || !to || positionals.length > 2)
    throw new UnusableInput("handbook needs the model to read and the file to write");
  const kind = extname(to).slice(1).toLowerCase() as BookletKind;
  if (!bookletKinds.includes(kind))
    throw new UnusableInput(`${to}: the ending must be one of ${bookletKinds.map((one) => `.${one}`).join(", ")}`);
  const { language } = values;
  if (language !== undefined && !/^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8})*$/.test(language))
    throw new UnusableInput(`--language ${language}: this is no language; give its code, as de or pt-BR`);
  const model = readModel(from);
  if (![...model.elements].some(({ type }) => isFlowNode(type)))
    throw new UnusableInput(`${from}: there is no process with steps in this file`);
  const made = handbookOf(request(model, basename(from), language));
  const bytes = await bookletFile(made.booklet, kind);
  try {
    writeFileSync(callerPath(to), bytes);
  } catch {
    throw new UnusableInput(`${to}: the file cannot be written`);
  }
  const untold = made.untold.flatMap(({ texts }) => texts);
  if (json)
    console.log(
      JSON.stringify(
        {
          file: to,
          language: made.booklet.language,
          languages: languagesOf(model),
          missing: untold.map(({ element, what }) => ({ element: element.id, what })),
        },
        null,
        1,
      ),
    );
  else if (untold.length > 0)
    process.stderr.write(
      `lane: ${untold.length} texts are not told in ${language}; they stand in the model's own words\n`,
    );
  return EXIT.done;
}

function options(args: readonly string[]) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options: { language: { type: "string" } } });
  } catch (error) {
    throw new UnusableInput((error instanceof Error ? error.message : String(error)).split("\n")[0] ?? "");
  }
}

/** The whole of a file that no directory goes with. The model's own language is told as it stands. */
const request = (model: Model, file: string, language: string | undefined) => ({
  title: nameOfModel(model),
  subtitle: file,
  facts: [],
  models: [{ id: file, model, facts: [], decisions: new Map(), more: {} }],
  entries: [],
  parts: handbookParts as readonly HandbookPart[],
  language: languageToTell([model], language),
  sentences: sentencesIn(language),
});
