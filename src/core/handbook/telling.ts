import { type Line, line, linkTo, type Run } from "../booklet";
import type { DecisionDocument } from "../decisions";
import type { DirectoryEntry } from "../directory";
import type { Said } from "../messages";
import { type Element, type Id, type Model, nameOf, wordFor } from "../model";
import { type NumberedNode, numberedNodes } from "./numbers";

/** What each part of a handbook is written from. */
export interface Telling {
  readonly model: Model;
  /** Puts what the handbook itself says into its language. */
  readonly words: (said: Said) => string;
  /** The directory's entries by their ids; none in a bare file. */
  readonly entries: ReadonlyMap<Id, DirectoryEntry>;
  /** Files of decisions by their ids in the workspace. */
  readonly decisions: ReadonlyMap<Id, DecisionDocument>;
  /** The processes it is about, each with its nodes in order. */
  readonly processes: readonly ToldProcess[];
  /** Where something is told of; anchors of one model are other than those of the next. */
  readonly anchor: (kind: string, id: string) => string;
  /** Where processes are told of, by what calls name them by. */
  readonly chapters: ReadonlyMap<string, string>;
  /** The number of each flow node. */
  readonly numbers: ReadonlyMap<Id, string>;
}

export interface ToldProcess {
  readonly process: Element;
  readonly nodes: readonly NumberedNode[];
}

/** The processes of a model that have any steps, with their nodes. */
export function toldProcesses(model: Model, processes: readonly Element[]): ToldProcess[] {
  return processes.map((process) => ({ process, nodes: numberedNodes(model, process.id) }));
}

/** What a flow node is called, with its number; what has no name by what it is. */
export function numberedName({ model, numbers }: Telling, element: Element): string {
  const number = numbers.get(element.id);
  const name = nameOf(model, element.id) || wordFor(element.type);
  return number === undefined ? name : `${number} ${name}`;
}

/** The same, leading to where it is told of. */
export const linkToNode = (telling: Telling, element: Element): Run =>
  telling.numbers.has(element.id)
    ? linkTo(numberedName(telling, element), telling.anchor("step", element.id))
    : { text: numberedName(telling, element) };

/** Names of the directory are what they are called there now. */
export const nameOfEntry = (telling: Telling, entry: Id | undefined, name: string): string =>
  (entry === undefined ? undefined : telling.entries.get(entry)?.name) ?? name;

/** Something that several steps have in common (a role, a system, a document), with the steps. */
export interface Shared {
  readonly key: string;
  readonly name: string;
  readonly entry: Id | undefined;
  /** What is said of it, as lines. */
  readonly says: readonly string[];
  readonly uses: Map<string, Run[]>;
}

/** Gathers what steps have in common: by its entry of the directory, else by its name. */
export class Gathered {
  private readonly found = new Map<string, Shared>();
  constructor(private readonly telling: Telling) {}

  /** Notes that something is there, and what its own description says. */
  at(entry: Id | undefined, called: string, description = ""): Shared {
    const name = nameOfEntry(this.telling, entry, called);
    const key = entry === undefined || !this.telling.entries.has(entry) ? `name ${name}` : `entry ${entry}`;
    const known = this.found.get(key);
    const said = (entry === undefined ? undefined : this.telling.entries.get(entry)?.description) || description;
    const says = [...(known?.says ?? [])];
    if (said.trim() !== "" && !says.includes(said.trim())) says.push(said.trim());
    const shared: Shared = { key, name, entry, says, uses: known?.uses ?? new Map() };
    this.found.set(key, shared);
    return shared;
  }

  use(entry: Id | undefined, called: string, how: string, step: Element): void {
    const { uses } = this.at(entry, called);
    uses.set(how, [...(uses.get(how) ?? []), linkToNode(this.telling, step)]);
  }

  /** By name. */
  all(): Shared[] {
    return [...this.found.values()].filter(({ name }) => name !== "").sort((a, b) => (a.name < b.name ? -1 : 1));
  }
}

/** Paragraphs of a text of plain lines. */
export const paragraphs = (texts: readonly string[]): { kind: "paragraph"; says: Line }[] =>
  texts
    .flatMap((text) => text.split(/\n+/))
    .filter((text) => text.trim() !== "")
    .map((text) => ({ kind: "paragraph", says: line(text.trim()) }));
