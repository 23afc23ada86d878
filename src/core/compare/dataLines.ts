import { type DataField, fieldOf, limitWords } from "../data";
import {
  canHoldForm,
  decidedBy,
  type Element,
  type FormItem,
  formOf,
  itemOfData,
  type Model,
  schemaTextOf,
} from "../model";

/** Lists are held against each other line by line: what is told is what came and what went. */
const lines = (list: readonly string[]): string => list.join("\n");
const one = (text: string) => text.replace(/\s+/g, " ").trim();

/** The decision a step decides by, with the answers it comes to. */
export function decisionLine(step: Element): string {
  const by = decidedBy(step);
  if (!by) return "";
  return one(by.answers?.length ? `${by.name} (${by.answers.join(", ")})` : by.name);
}

/** What a form asks, in its order. */
export function formLines(step: Element): string {
  const form = canHoldForm(step) ? formOf(step) : undefined;
  return lines((form?.items ?? []).map(itemLine));
}

function itemLine({ path, label, help, group, isReadOnly, shownWhen, check, checkWords }: FormItem): string {
  const said = [
    isReadOnly && "only shown",
    shownWhen && `shown when ${shownWhen}`,
    check && `has to hold: ${check}`,
    checkWords && `else “${checkWords}”`,
    group && `under ${group}`,
    help && `help “${help}”`,
  ].filter(Boolean);
  const name = label && label !== path.at(-1) ? `${label} (${path.join(".")})` : path.join(".");
  return one(said.length > 0 ? `${name} (${said.join("; ")})` : name);
}

/** What a piece of data holds: its parts with their kinds and limits. */
export function heldLines(model: Model, data: Element): string {
  const item = itemOfData(model, data);
  const text = item && schemaTextOf(item);
  if (text === undefined) return "";
  try {
    return lines(fieldLines(fieldOf("", JSON.parse(text)), []));
  } catch {
    // What somebody wrote by hand is told as it stands.
    return one(text);
  }
}

const kindWords: { readonly [kind in DataField["kind"]]: string } = {
  text: "text",
  number: "number",
  amount: "amount",
  yesNo: "yes or no",
  date: "date",
  dateTime: "date and time",
  duration: "duration",
  choice: "choice",
  record: "record",
};

function fieldLines(field: DataField, path: readonly string[]): string[] {
  const { kind, isList, isRequired, description, usual } = field;
  const parts = kind === "record" ? (field.fields ?? []) : [];
  const said = [
    isList ? `several of ${kindWords[kind]}` : kindWords[kind],
    limitWords(field),
    isRequired && "required",
    usual !== undefined && `${JSON.stringify(usual)} where nothing is said`,
    description && `“${description}”`,
  ].filter(Boolean);
  const own = `${path.length === 0 ? "" : `${path.join(".")}: `}${said.join("; ")}`;
  return [one(own), ...parts.flatMap((part) => fieldLines(part, [...path, part.name]))];
}
