import type { Element, Id } from "./element";
import { ownNamespace } from "./model";
import { attribute, ownElement, ownNodes, replaced } from "./ownData";
import type { XmlNode } from "./xmlNode";

/**
 * Our own data in a file: extension elements of our namespace, for what the standard has no place for. They stand among the
 * extension elements of others, in the place they were read from.
 */
export type SystemUse = "reads" | "writes" | "runs on";
export const systemUses: readonly SystemUse[] = ["reads", "writes", "runs on"];

/** A step's use of an IT system. The name is kept beside the directory's id, so that a file explains itself. */
export interface UsedSystem {
  readonly entry: Id;
  readonly name: string;
  readonly use: SystemUse;
}

export function systemsOf(element: Element): UsedSystem[] {
  return ownNodes(element, "uses").flatMap((node) => {
    const entry = attribute(node, "system");
    const use = attribute(node, "use") as SystemUse;
    return entry
      ? [{ entry, name: attribute(node, "name") ?? entry, use: systemUses.includes(use) ? use : "reads" }]
      : [];
  });
}

export function withSystems(element: Element, systems: readonly UsedSystem[]) {
  const nodes = systems.map(({ entry, name, use }) =>
    ownElement("uses", [
      ["system", entry],
      ["name", name],
      ["use", use],
    ]),
  );
  return replaced(element, "uses", nodes);
}

/** The directory entry an element stands for: a resource for a role, a data object for a document. */
export function entryOf(element: Element): Id | undefined {
  const node = ownNodes(element, "entry")[0];
  return node && attribute(node, "id");
}

export function withEntry(element: Element, entry: Id) {
  return replaced(element, "entry", [ownElement("entry", [["id", entry]])]);
}

/** The same element in the version this one was copied from; several where it stands for several. */
export function counterpartsOf(element: Element): Id[] {
  return ownNodes(element, "counterpart").flatMap((node) => attribute(node, "id") || []);
}

/** Whether somebody has said that an element has no counterpart, whatever its id or name is. */
export const isWithoutCounterpart = (element: Element): boolean =>
  ownNodes(element, "counterpart").some((node) => attribute(node, "id") === "");

/** An empty list says that there is none; `null` says nothing, so that id and name decide. */
export function withCounterparts(element: Element, ids: readonly Id[] | null) {
  return replaced(
    element,
    "counterpart",
    (ids?.length === 0 ? [""] : (ids ?? [])).map((id) => ownElement("counterpart", [["id", id]])),
  );
}

/** The marks in a brief that an element was taken from. */
export function wordsOf(element: Element): Id[] {
  return ownNodes(element, "words").flatMap((node) => attribute(node, "mark") ?? []);
}

export function withWords(element: Element, marks: readonly Id[]) {
  return replaced(
    element,
    "words",
    marks.map((mark) => ownElement("words", [["mark", mark]])),
  );
}

/** Facts somebody wants to keep with an element, by names of their own. */
export function attributesOf(element: Element): { readonly name: string; readonly value: string }[] {
  return ownNodes(element, "attribute").flatMap((node) => {
    const name = attribute(node, "name");
    return name ? [{ name, value: attribute(node, "value") ?? "" }] : [];
  });
}

export function withAttributes(
  element: Element,
  attributes: readonly { readonly name: string; readonly value: string }[],
) {
  return replaced(
    element,
    "attribute",
    attributes.map(({ name, value }) =>
      ownElement("attribute", [
        ["name", name],
        ["value", value],
      ]),
    ),
  );
}

/** Extension content that is not ours. */
export function foreignExtension(element: Element): readonly XmlNode[] {
  return (element.extension ?? []).filter((node) => !("element" in node && node.element.uri === ownNamespace));
}

/** Something outside of the model that belongs to an element: a page on the web, or a file kept with the workspace. */
export type Link =
  | { readonly kind: "page"; readonly title: string; readonly href: string }
  | { readonly kind: "file"; readonly title: string; readonly file: Id };

export function linksWith(element: Element): Link[] {
  return ownNodes(element, "link").flatMap((node): Link[] => {
    const title = attribute(node, "title") ?? "";
    const [href, file] = [attribute(node, "href"), attribute(node, "file")];
    if (file !== undefined) return [{ kind: "file", title, file }];
    return href === undefined ? [] : [{ kind: "page", title, href }];
  });
}

export function withLinks(element: Element, links: readonly Link[]) {
  return replaced(
    element,
    "link",
    links.map((link) =>
      ownElement("link", [["title", link.title], link.kind === "page" ? ["href", link.href] : ["file", link.file]]),
    ),
  );
}

/** Which version of the called process is meant; undefined for whatever its as-is holds. The standard names only the process. */
export function calledVersionOf(element: Element): { readonly version: Id; readonly name: string } | undefined {
  const node = ownNodes(element, "calledVersion")[0];
  const version = node && attribute(node, "id");
  return version === undefined ? undefined : { version, name: (node && attribute(node, "name")) ?? version };
}

export function withCalledVersion(element: Element, called: { readonly version: Id; readonly name: string } | null) {
  return replaced(
    element,
    "calledVersion",
    called
      ? [
          ownElement("calledVersion", [
            ["id", called.version],
            ["name", called.name],
          ]),
        ]
      : [],
  );
}

/**
 * Which process of the workspace is called. The standard names it by the id it has in its file, which several may have; here it is
 * known by its record.
 */
export function calledProcessOf(element: Element): { readonly process: Id; readonly name: string } | undefined {
  const node = ownNodes(element, "calledProcess")[0];
  const process = node && attribute(node, "id");
  return process === undefined ? undefined : { process, name: (node && attribute(node, "name")) ?? process };
}

export function withCalledProcess(element: Element, called: { readonly process: Id; readonly name: string } | null) {
  return replaced(
    element,
    "calledProcess",
    called
      ? [
          ownElement("calledProcess", [
            ["id", called.process],
            ["name", called.name],
          ]),
        ]
      : [],
  );
}

/** What tells one called process from another of the same id: the id, and the record where the call says it. */
export function callKeyOf(element: Element): string {
  const record = calledProcessOf(element)?.process;
  return `${String(element.calledElement ?? "")}${record === undefined ? "" : ` ${record}`}`;
}

/** Whether an address of a file may be followed: a page, a mail, or a place beside the file; nothing that runs. */
export function isSafeLink(href: string): boolean {
  // Browsers leave blanks and control characters out of an address before they look at it.
  const clean = [...href].filter((letter) => letter > " ").join("");
  return /^(?:https?:|mailto:)/i.test(clean) || (!/^[a-z][a-z0-9+.-]*:/i.test(clean) && !/^[/\\]{2}/.test(clean));
}
