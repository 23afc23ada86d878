import { type DataField, formFromData, newField, schemaOf } from "@/core/data";
import { type Id, processesOf } from "@/core/model";
import type { Drawing } from "./drawing";

type Uses = readonly (readonly [step: Id, use: "reads" | "creates" | "changes", ...data: readonly Id[]])[];

export const field = (name: string, kind: DataField["kind"], more: Partial<DataField> = {}): DataField => ({
  ...newField(name, kind),
  ...more,
});
const record = (name: string, ...fields: readonly DataField[]) => field(name, "record", { fields });

/** What a process handles, and which step reads, makes or changes it; people's steps that do either get a form of it. */
export function handle(draw: Drawing, data: readonly (readonly [id: Id, field: DataField])[], uses: Uses): void {
  const process = processesOf(draw.model)[0]?.id ?? "";
  for (const [id, one] of data)
    draw.do({ type: "defineData", process, id, name: one.name, schema: JSON.stringify(schemaOf(one)) });
  for (const [step, use, ...of] of uses) for (const one of of) draw.do({ type: "setDataUse", step, data: one, use });
  const steps = new Set(uses.map(([step]) => step));
  for (const step of steps)
    if (draw.model.elements.get(step)?.type === "userTask")
      draw.do({ type: "setForm", id: step, form: formFromData(draw.model, step) });
}

/** A household's application on its way to a plant that feeds in. */
export function handleConnection(draw: Drawing): void {
  handle(
    draw,
    [
      [
        "plant",
        record(
          "plant",
          field("rated power", "number", { isRequired: true, least: 0, most: 1000, description: "In kW" }),
          field("roof", "choice", { choices: ["pitched", "flat", "ground"] }),
          field("address", "text", { isRequired: true, most: 200 }),
        ),
      ],
      ["missing-papers", field("missing papers", "text", { isList: true, description: "What is not there yet" })],
      ["load", field("load after connection", "number", { least: 0, description: "In kW, with this plant" })],
      ["feeder-limit", field("feeder limit", "number", { least: 0, description: "In kW, as the network map has it" })],
      [
        "meter",
        record(
          "meter",
          field("number", "text", { most: 20 }),
          field("two way", "yesNo", { isRequired: true }),
          field("fuse", "number", { least: 6, most: 125, description: "In ampere" }),
        ),
      ],
      ["visit", record("visit", field("day", "date", { isRequired: true }), field("telephone", "text"))],
      ["defects", field("defects", "text", { isList: true })],
      ["tariff", field("feed-in tariff", "amount", { currency: "EUR", least: 0, description: "For each kWh" })],
    ],
    [
      ["register", "creates", "plant", "missing-papers"],
      ["request-papers", "reads", "missing-papers"],
      ["await-papers", "changes", "missing-papers"],
      ["check-documents", "reads", "plant"],
      ["check-capacity", "reads", "plant"],
      ["check-capacity", "creates", "load", "feeder-limit"],
      ["approve", "reads", "plant"],
      ["approve", "creates", "meter"],
      ["book-visit", "creates", "visit"],
      ["check-wiring", "reads", "visit"],
      ["check-wiring", "creates", "defects"],
      ["note-defects", "changes", "defects"],
      ["set-tariff", "reads", "plant"],
      ["set-tariff", "creates", "tariff"],
      ["connected", "reads", "tariff"],
    ],
  );
}

/** What is measured while a plant is switched on. */
export function handleSwitchOn(draw: Drawing): void {
  handle(
    draw,
    [["deviation", field("voltage deviation", "number", { least: 0, most: 100, description: "In per cent" })]],
    [
      ["watch-feed-in", "creates", "deviation"],
      ["record-values", "reads", "deviation"],
    ],
  );
}

/** A night's readings, with what is missing in them. */
export function handleReadings(draw: Drawing): void {
  handle(
    draw,
    [
      ["meters", field("meters", "text", { isList: true, description: "Numbers of the meters that are due" })],
      [
        "readings",
        field("readings", "record", {
          isList: true,
          fields: [field("meter", "text"), field("taken", "dateTime"), field("kWh", "number", { least: 0 })],
        }),
      ],
      ["gaps-found", field("gaps", "text", { isList: true, description: "Meters without a reading" })],
    ],
    [
      ["list-meters", "creates", "meters"],
      ["read-meter", "reads", "meters"],
      ["read-meter", "creates", "readings"],
      ["check-gaps", "reads", "readings"],
      ["check-gaps", "creates", "gaps-found"],
      ["estimate", "reads", "gaps-found"],
      ["estimate", "changes", "readings"],
      ["store", "reads", "readings"],
    ],
  );
}

/** A complaint, the bill it is about, and what the household says to the answer. */
export function handleComplaint(draw: Drawing): void {
  handle(
    draw,
    [
      [
        "complaint-data",
        record(
          "complaint",
          field("bill number", "text", { isRequired: true, most: 20 }),
          field("reason", "choice", { choices: ["amount", "period", "address", "other"] }),
          field("words", "text", { most: 2000 }),
        ),
      ],
      [
        "bill",
        record(
          "bill",
          field("amount", "amount", { currency: "EUR" }),
          field("amount by readings", "amount", { currency: "EUR" }),
        ),
      ],
      ["answer-data", record("answer", field("objection", "text", { most: 2000 }))],
    ],
    [
      ["record", "creates", "complaint-data"],
      ["review-bill", "reads", "complaint-data"],
      ["review-bill", "creates", "bill"],
      ["correct", "changes", "bill"],
      ["answer", "reads", "bill"],
      ["answer", "creates", "answer-data"],
      ["clear-up", "changes", "answer-data"],
    ],
  );
}

/** Which meter comes when. */
export function handleExchange(draw: Drawing): void {
  handle(
    draw,
    [
      ["new-meter", field("new meter", "text", { most: 20, description: "Its number" })],
      ["visit-day", field("day of the visit", "date")],
    ],
    [
      ["order-meter", "creates", "new-meter"],
      ["book-visit", "creates", "visit-day"],
      ["notify-household", "reads", "visit-day"],
      ["exchange-meter", "reads", "new-meter"],
    ],
  );
}
