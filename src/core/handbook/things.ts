import { type Block, line } from "../booklet";
import { cellsOf } from "../capture";
import { type FieldKind, fieldsOfProcess, limitWords, rowsOf } from "../data";
import { type Said, say } from "../messages";
import { documentationIn, elementsOfType, entryOf, nameOf, plainOf } from "../model";
import { sharedBlocks } from "./people";
import { Gathered, type Telling } from "./telling";

/** The IT systems that steps use, and what for. */
export function systemBlocks(telling: Telling): Block[] {
  const { model, words, processes } = telling;
  const systems = new Gathered(telling);
  for (const { nodes } of processes)
    for (const { element } of nodes)
      for (const { entry, name, use } of cellsOf(model, element.id).uses)
        systems.use(entry, name, words(useNames[use]), element);
  return systems.all().flatMap((system) => sharedBlocks(telling.anchor("system", system.key), system, []));
}

const kindNames: { readonly [Kind in FieldKind]: Said } = {
  text: say`text`,
  number: say`number`,
  amount: say`amount`,
  yesNo: say`yes or no`,
  date: say`date`,
  dateTime: say`date and time`,
  duration: say`duration`,
  choice: say`choice`,
  record: say`record`,
};

const useNames = {
  reads: say`Read at`,
  writes: say`Written at`,
  "runs on": say`Runs`,
} as const;

/** The documents and other data that are drawn, and the steps that need or give them. */
export function documentBlocks(telling: Telling): Block[] {
  const { model, words, processes } = telling;
  const documents = new Gathered(telling);
  for (const type of ["dataObjectReference", "dataStoreReference"] as const)
    for (const data of elementsOfType(model, type))
      documents.at(entryOf(data), nameOf(model, data.id), plainOf(documentationIn(data)));
  for (const { nodes } of processes)
    for (const { element } of nodes) {
      const { needs, gives } = cellsOf(model, element.id);
      for (const { entry, name } of needs) documents.use(entry, name, words(say`Needed at`), element);
      for (const { entry, name } of gives) documents.use(entry, name, words(say`Given at`), element);
    }
  return documents.all().flatMap((document) => sharedBlocks(telling.anchor("document", document.key), document, []));
}

/** The data of the processes, field by field. */
export function dataBlocks(telling: Telling): Block[] {
  const { model, words } = telling;
  return telling.processes.flatMap(({ process }): Block[] => {
    const rows = fieldsOfProcess(model, process.id).flatMap((field) => rowsOf(field));
    // Data of which only the name is known says nothing here that the documents do not.
    if (rows.every(({ field, depth }) => depth === 0 && field.kind === "text" && field.description === "")) return [];
    return [
      {
        kind: "table",
        caption: nameOf(model, process.id),
        columns: [
          { name: words(say`Data`), share: 3 },
          { name: words(say`Kind`), share: 2 },
          { name: words(say`May be`), share: 2 },
          { name: words(say`What it is`), share: 3 },
        ],
        rows: rows.map(({ field, depth }) => [
          line(`${"– ".repeat(depth)}${field.name}`),
          line(
            [
              words(kindNames[field.kind]),
              field.isList ? words(say`several`) : "",
              field.isRequired ? words(say`required`) : "",
            ]
              .filter(Boolean)
              .join(", "),
          ),
          line(limitWords(field)),
          line(field.description),
        ]),
      },
    ];
  });
}
