import { type Block, blocksOfText, type Fact, joined, type Line, line, type Run } from "../booklet";
import { cellsOf } from "../capture";
import { kindOf, kindWords } from "../commands";
import { shownItems } from "../data";
import { rolesOf } from "../directory";
import { type Said, say, term } from "../messages";
import {
  attributesOf,
  boundaryEventsOf,
  calledProcessOf,
  childrenOf,
  connectionsOf,
  decidedBy,
  documentationIn,
  type Element,
  type Expression,
  formOf,
  type Id,
  laneOf,
  linksWith,
  nameOf,
  outgoingOf,
  participantOf,
  safeAddress,
} from "../model";
import { currencyOf } from "../scenario";
import { bindingOf } from "../services";
import { linkToNode, nameOfEntry, numberedName, type Telling, type ToldProcess } from "./telling";

/** Every flow node of a process, in order: what it is, who does it with what, how it goes on, and how it is done. O(nodes + what hangs on them). */
export function stepBlocks(telling: Telling, { nodes }: ToldProcess): Block[] {
  return nodes.flatMap(({ element }): Block[] => [
    {
      kind: "heading",
      level: 3,
      text: numberedName(telling, element),
      anchor: telling.anchor("step", element.id),
      of: element.id,
    },
    { kind: "facts", facts: factsOf(telling, element) },
    ...blocksOfText(documentationIn(element)),
  ]);
}

function factsOf(telling: Telling, element: Element): Fact[] {
  const { model, words } = telling;
  const cells = cellsOf(model, element.id);
  const facts: Fact[] = [];
  const tell = (name: Said, says: Line) => {
    if (says.length > 0) facts.push({ name: words(name), says });
  };
  const names = (items: readonly { readonly entry?: Id; readonly name: string }[]): Line =>
    line(items.map(({ entry, name }) => nameOfEntry(telling, entry, name)).join(", "));

  tell(say`Kind`, line(words(term(kindWords(kindOf(model, element)).replace(/, closed$/, "")))));
  for (const [part, name] of partNames) {
    const own = part === "responsible" ? cells.by : rolesOf(model, element.id).filter((role) => role.part === part);
    tell(name, names(own));
  }
  const lane = laneOf(model, element.id);
  const laneName = lane ? nameOf(model, lane.id) : "";
  if (laneName !== "" && !cells.by.some(({ name }) => name === laneName)) tell(say`Lane`, line(laneName));
  tell(
    say`Systems`,
    line(
      cells.uses.map(({ entry, name, use }) => `${nameOfEntry(telling, entry, name)} (${words(term(use))})`).join(", "),
    ),
  );
  tell(say`Needs`, names(cells.needs));
  tell(say`Gives`, names(cells.gives));
  for (const { name, says } of messages(telling, element)) tell(name, says);
  tell(say`Waits for`, line(cells.waits ?? ""));
  tell(say`Takes`, line(cells.time));
  tell(say`Costs`, line(cells.cost === "" ? "" : `${cells.cost} ${currencyOf(model)}`));
  tell(say`Done again`, line(repetition(telling, element)));
  tell(say`Calls`, calls(telling, element));
  const decided = decidedBy(element);
  tell(say`Decides by`, line(decided?.name ?? ""));
  const bound = bindingOf(model, element);
  tell(
    say`Done by`,
    line(
      bound
        ? words(say`${bound.operation.name ?? bound.operation.id} of ${bound.interface.name ?? bound.interface.id}`)
        : "",
    ),
  );
  const form = formOf(element);
  tell(
    say`Form`,
    form
      ? line(
          shownItems(model, element.id, form)
            .map(({ label }) => label)
            .join(", "),
        )
      : [],
  );
  tell(say`At its edge`, joined(boundaryEventsOf(model, element.id).map((event) => linkToNode(telling, event))));
  tell(say`Goes on with`, goesOn(telling, element));
  for (const { name, value } of attributesOf(element)) if (value !== "") facts.push({ name, says: line(value) });
  const links = linksWith(element).map((link): Run => {
    const isAddress = link.kind === "page" && safeAddress.test(link.href);
    const title = link.title || (link.kind === "page" ? link.href : "");
    return { text: title, ...(isAddress && link.kind === "page" && { link: link.href }) };
  });
  tell(say`See also`, joined(links.filter(({ text }) => text !== "")));
  return facts;
}

const partNames = [
  ["responsible", say`Who`],
  ["accountable", say`Accountable`],
  ["consulted", say`Consulted`],
  ["informed", say`Informed`],
] as const;

/** What comes next, each way with its answer. */
function goesOn(telling: Telling, element: Element): Line {
  const ways = outgoingOf(telling.model, element.id).flatMap((flow): Run[] => {
    const target = telling.model.elements.get(flow.targetRef as Id);
    if (!target) return [];
    const condition = (flow.conditionExpression as Expression | undefined)?.text?.trim();
    const answer = nameOf(telling.model, flow.id) || condition || "";
    const isUsual = element.default === flow.id;
    const how = [answer, isUsual && answer === "" ? telling.words(say`otherwise`) : ""].filter(Boolean).join(" ");
    return [...(how === "" ? [] : [{ text: `${how}: ` }]), linkToNode(telling, target), { text: "; " }];
  });
  return ways.slice(0, -1);
}

/** Messages that come to a step or leave it, with the party at the other end. */
function messages({ model }: Telling, element: Element): { name: Said; says: Line }[] {
  const said = (isOut: boolean) =>
    connectionsOf(model, element.id)
      .filter((flow) => flow.type === "messageFlow" && (isOut ? flow.sourceRef : flow.targetRef) === element.id)
      .map((flow) => {
        const other = (isOut ? flow.targetRef : flow.sourceRef) as Id;
        const pool = participantOf(model, other);
        const message = typeof flow.messageRef === "string" ? nameOf(model, flow.messageRef) : "";
        const what = nameOf(model, flow.id) || message;
        const party = pool ? nameOf(model, pool.id) : nameOf(model, other);
        return what === "" ? party : party === "" ? what : `${what} (${party})`;
      })
      .filter((text) => text !== "")
      .join(", ");
  return [
    { name: say`Message from`, says: line(said(false)) },
    { name: say`Message to`, says: line(said(true)) },
  ];
}

function repetition({ model, words }: Telling, element: Element): string {
  const loop = childrenOf(model, element.id, "loopCharacteristics")[0];
  if (!loop) return "";
  const text = (field: string) => (loop[field] as Expression | undefined)?.text?.trim() ?? "";
  if (loop.type === "standardLoopCharacteristics") {
    const until = text("loopCondition");
    return words(until === "" ? say`in a loop` : say`in a loop, as long as ${until}`);
  }
  const times = text("loopCardinality");
  const each = typeof loop.loopDataInputRef === "string" ? nameOf(model, loop.loopDataInputRef) : "";
  const how = loop.isSequential === true ? say`one after the other` : say`all at once`;
  if (times !== "") return words(say`${times} times, ${how}`);
  return words(each === "" ? say`several times, ${how}` : say`once for each of ${each}, ${how}`);
}

/** The process that is called, leading to where it is told of. */
function calls({ model, chapters }: Telling, element: Element): Line {
  if (element.type !== "callActivity") return [];
  const called = calledProcessOf(element);
  const id = called?.process ?? (typeof element.calledElement === "string" ? element.calledElement : "");
  const name = called?.name ?? (model.elements.has(id) ? nameOf(model, id) || id : id);
  const chapter = chapters.get(id);
  return name === "" ? [] : [{ text: name, ...(chapter !== undefined && { link: `#${chapter}` }) }];
}
