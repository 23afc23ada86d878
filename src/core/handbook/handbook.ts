import { anchorOf, type Block, type Booklet, blocksOfText, type Fact, line } from "../booklet";
import { headOf } from "../capture";
import { drawMissingPages } from "../commands";
import type { DecisionDocument } from "../decisions";
import type { DirectoryEntry } from "../directory";
import { sceneOf } from "../drawing";
import { type SeenLens, withLenses, withLensLegend } from "../lens";
import { inLanguage, type Said, type Sentences, say, term } from "../messages";
import {
  documentationIn,
  type Element,
  flowNodesIn,
  type Id,
  type Model,
  modelIn,
  nameOf,
  pageName,
  participantsOf,
  processesOf,
  type Untold,
  wordFor,
} from "../model";
import { decisionBlocks } from "./decisions";
import { withNumbers } from "./numbering";
import { handoverBlocks, responsibilityBlocks, roleBlocks } from "./people";
import { stepBlocks } from "./steps";
import { type Telling, type ToldProcess, toldProcesses } from "./telling";
import { dataBlocks, documentBlocks, systemBlocks } from "./things";

/** The parts a handbook can have of each model, in the order they usually stand. */
export const handbookParts = [
  "process",
  "diagram",
  "steps",
  "roles",
  "responsibilities",
  "handovers",
  "systems",
  "documents",
  "data",
  "decisions",
  "figures",
  "changes",
  "comments",
] as const;
export type HandbookPart = (typeof handbookParts)[number];

/** A model that a handbook tells of. */
export interface HandbookModel {
  /** Different for each model of a handbook; calls name it, where they go from model to model. */
  readonly id: string;
  readonly model: Model;
  /** What is said below its heading: version, revision, approval. */
  readonly facts: readonly Fact[];
  readonly decisions: ReadonlyMap<Id, DecisionDocument>;
  /** Parts that are not in the model: figures of a forecast, changes since a former state, open comments. */
  readonly more: { readonly [Part in "figures" | "changes" | "comments"]?: readonly Block[] };
  readonly hueOf?: (lane: Element) => string | undefined;
  /** What lenses mark, laid over its pages with what they mean. */
  readonly lenses?: readonly SeenLens[];
}

export interface HandbookRequest {
  readonly title: string;
  readonly subtitle: string;
  readonly facts: readonly Fact[];
  readonly models: readonly HandbookModel[];
  readonly entries: readonly DirectoryEntry[];
  readonly parts: readonly HandbookPart[];
  /** Whether its chapters and parts have numbers. */
  readonly isNumbered?: boolean;
  /** On its cover. */
  readonly logo?: Uint8Array | undefined;
  /** In which language the models are told; undefined for their own. */
  readonly language: string | undefined;
  /** What the handbook itself says in that language; where it lacks a sentence, English. */
  readonly sentences: Sentences;
}

export interface Handbook {
  readonly booklet: Booklet;
  /** Texts that are not there in its language, by model. */
  readonly untold: readonly { readonly model: string; readonly texts: readonly Untold[] }[];
}

const partNames: { readonly [Part in Exclude<HandbookPart, "process">]: Said } = {
  diagram: say`Diagram`,
  steps: say`Steps`,
  roles: say`Roles`,
  responsibilities: say`Responsibilities`,
  handovers: say`Hand-overs`,
  systems: say`Systems`,
  documents: say`Documents`,
  data: say`Data`,
  decisions: say`Decisions`,
  figures: say`Figures`,
  changes: say`Changes`,
  comments: say`Open comments`,
};

/**
 * The documentation of models, made from what stands in them: the same models give the same handbook. What nobody has said is left out;
 * a part without content has no heading. O(elements), apart from the step sheet each process is read by.
 */
export function handbookOf(request: HandbookRequest): Handbook {
  const { language, sentences } = request;
  const words = (said: Said) => inLanguage(said, sentences);
  const entries = new Map(request.entries.map((entry) => [entry.id, entry]));
  const chapters = new Map<string, string>();
  for (const { id, model } of request.models) {
    chapters.set(id, anchorOf("chapter", id));
    for (const process of processesOf(model))
      if (!chapters.has(process.id)) chapters.set(process.id, anchorOf("chapter", id));
  }
  const untold: { model: string; texts: readonly Untold[] }[] = [];
  const blocks = request.models.flatMap((one, at): Block[] => {
    const drawn = drawMissingPages(one.model);
    const told = language === undefined ? { model: drawn, untold: [] } : modelIn(drawn, language);
    if (told.untold.length > 0) untold.push({ model: one.id, texts: told.untold });
    const { model } = told;
    const processes = toldProcesses(
      model,
      processesOf(model).filter(({ id }) => flowNodesIn(model, id).length > 0),
    );
    const numbers = new Map(processes.flatMap(({ nodes }) => nodes.map(({ element, number }) => [element.id, number])));
    const prefix = request.models.length > 1 ? `m${at + 1}-` : "";
    const anchor = (kind: string, id: string) => prefix + anchorOf(kind, id);
    const telling: Telling = { model, words, entries, decisions: one.decisions, processes, anchor, chapters, numbers };
    return [
      {
        kind: "heading",
        level: 1,
        isChapter: at > 0,
        text: nameOfModel(model),
        anchor: chapters.get(one.id) as string,
      },
      ...(one.facts.length > 0 ? [{ kind: "facts" as const, facts: one.facts }] : []),
      ...request.parts.flatMap((part) => partBlocks(telling, part, one)),
      ...untoldBlocks(telling, told.untold, language),
    ];
  });
  return {
    booklet: {
      title: request.title,
      subtitle: request.subtitle,
      language: language ?? "en",
      facts: request.facts,
      contents: words(say`Contents`),
      blocks: request.isNumbered ? withNumbers(blocks) : blocks,
      ...(request.logo && { logo: request.logo }),
    },
    untold,
  };
}

/** What a model is called: its collaboration or its first process, or the first pool. */
export function nameOfModel(model: Model): string {
  const processes = processesOf(model);
  const named = [...processes, ...participantsOf(model)].map(({ id }) => nameOf(model, id)).find((name) => name !== "");
  return named ?? wordFor("process");
}

function partBlocks(telling: Telling, part: HandbookPart, one: HandbookModel): Block[] {
  const blocks = contentOf(telling, part, one);
  if (blocks.length === 0 || part === "process") return [...blocks];
  const heading = { kind: "heading" as const, level: 2 as const };
  return [{ ...heading, text: telling.words(partNames[part]), anchor: telling.anchor("part", part) }, ...blocks];
}

function contentOf(telling: Telling, part: HandbookPart, one: HandbookModel): readonly Block[] {
  switch (part) {
    case "process":
      return telling.processes.flatMap((process) => processHead(telling, process));
    case "diagram":
      return diagramBlocks(telling, one);
    case "steps":
      return telling.processes.flatMap((process): Block[] => [
        ...(telling.processes.length > 1 ? [processHeading(telling, process)] : []),
        ...stepBlocks(telling, process),
      ]);
    case "roles":
      return roleBlocks(telling);
    case "responsibilities":
      return responsibilityBlocks(telling);
    case "handovers":
      return handoverBlocks(telling);
    case "systems":
      return systemBlocks(telling);
    case "documents":
      return documentBlocks(telling);
    case "data":
      return dataBlocks(telling);
    case "decisions":
      return decisionBlocks(telling);
    default:
      return one.more[part] ?? [];
  }
}

const nameOfProcess = ({ model }: Telling, { process }: ToldProcess) => {
  const head = headOf(model, process.id);
  return head.name || head.organisation || wordFor("process");
};

const processHeading = (telling: Telling, process: ToldProcess): Block => ({
  kind: "heading",
  level: 3,
  text: nameOfProcess(telling, process),
  anchor: telling.anchor("process", process.process.id),
});

/** When it begins, who runs it, what comes of it, and what somebody wrote about it. */
function processHead(telling: Telling, told: ToldProcess): Block[] {
  const { model, words, processes } = telling;
  const { organisation, trigger, result } = headOf(model, told.process.id);
  const parties = participantsOf(model).filter(({ processRef }) => processRef !== told.process.id);
  const facts: Fact[] = [
    { name: words(say`Process`), says: line(processes.length > 1 ? nameOfProcess(telling, told) : "") },
    { name: words(say`Run by`), says: line(organisation) },
    { name: words(say`Begins with`), says: line(trigger) },
    { name: words(say`Ends with`), says: line(result) },
    {
      name: words(say`Others taking part`),
      says: line(
        parties
          .map(({ id }) => nameOf(model, id))
          .filter(Boolean)
          .join(", "),
      ),
    },
    { name: words(say`Flow nodes`), says: line(String(told.nodes.length)) },
  ];
  return [
    { kind: "facts", facts: facts.filter(({ says }) => says.length > 0) },
    ...blocksOfText(documentationIn(told.process)),
  ];
}

function diagramBlocks({ model, words }: Telling, { hueOf, lenses = [] }: HandbookModel): Block[] {
  const pages = [...model.diagrams].sort((a, b) => a.order - b.order);
  return pages.flatMap((page): Block[] => {
    const plain = sceneOf(model, page, hueOf ? { hueOf } : {});
    if (plain.figures.length === 0) return [];
    const scene = withLensLegend(withLenses(plain, lenses), lenses);
    const caption = pageName(model, page) || nameOfModel(model);
    return [{ kind: "picture", caption, shows: words(say`The process as a diagram: ${caption}`), scene }];
  });
}

/** What is not there in the language it is told in. */
function untoldBlocks({ words, anchor }: Telling, texts: readonly Untold[], language: string | undefined): Block[] {
  if (texts.length === 0 || language === undefined) return [];
  const whats = { name: say`name`, description: say`description` } as const;
  return [
    { kind: "heading", level: 2, text: words(say`Not told in this language`), anchor: anchor("part", "untold") },
    {
      kind: "list",
      isOrdered: false,
      items: texts.map(({ element, what }) =>
        line(`${element.name?.trim() || words(term(wordFor(element.type)))}: ${words(whats[what])}`),
      ),
    },
  ];
}
