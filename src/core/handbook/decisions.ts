import { type Block, joined, line } from "../booklet";
import { type DecisionDocument, modelOf, tableOf, wordsOfTests, wordsOfValue } from "../decisions";
import { say } from "../messages";
import { decidedBy, type Element } from "../model";
import { linkToNode, type Telling } from "./telling";

/** What the steps decide by: the tables as they stand, and the steps that ask them. */
export function decisionBlocks(telling: Telling): Block[] {
  const asked = new Map<string, { readonly by: ReturnType<typeof decidedBy> & object; readonly steps: Element[] }>();
  for (const { nodes } of telling.processes)
    for (const { element } of nodes) {
      const by = decidedBy(element);
      if (!by) continue;
      const key = `${by.file} ${by.decision}`;
      asked.set(key, { by, steps: [...(asked.get(key)?.steps ?? []), element] });
    }
  return [...asked].flatMap(([key, { by, steps }]): Block[] => {
    const document = telling.decisions.get(by.file);
    return [
      { kind: "heading", level: 3, text: by.name, anchor: telling.anchor("decision", key) },
      {
        kind: "facts",
        facts: [
          { name: telling.words(say`Decides at`), says: joined(steps.map((step) => linkToNode(telling, step))) },
          ...(by.answers ? [{ name: telling.words(say`Can come to`), says: line(by.answers.join(", ")) }] : []),
        ],
      },
      ...(document ? tableBlocks(telling, document, by.decision, by.name) : []),
    ];
  });
}

function tableBlocks({ words }: Telling, document: DecisionDocument, id: string, name: string): Block[] {
  const table = tableOf(document.root, id);
  if (!table) {
    const question = modelOf(document).decisions.get(id)?.name;
    return question && question !== name ? [{ kind: "paragraph", says: line(question) }] : [];
  }
  return [
    {
      kind: "table",
      caption: words(say`${name}: rules (${table.hitPolicy.toLowerCase()})`),
      columns: [
        { name: "", share: 0.4 },
        ...table.inputs.map(({ label, expression }) => ({ name: label || expression, share: 1 })),
        ...table.outputs.map(({ label, name: own }) => ({ name: words(say`Then ${label || own || name}`), share: 1 })),
        ...table.notes.map(({ name: note }) => ({ name: note, share: 1 })),
      ],
      rows: table.rules.map(({ inputs, outputs, notes }, at) => [
        line(String(at + 1)),
        ...inputs.map((cell) => line(wordsOfTests(cell))),
        ...outputs.map((cell) => line(wordsOfValue(cell))),
        ...notes.map((note) => line(note)),
      ]),
    },
  ];
}
