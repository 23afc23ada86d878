import { z } from "zod";
import { say } from "../../messages";
import {
  called,
  richTextSchema,
  safeAddress,
  withCalledProcess,
  withCalledVersion,
  withDocumentation,
  withLinks,
} from "../../model";
import { type Change, refuse } from "../kernel/change";

const id = z.string().min(1).max(200);

export const describeInSchema = z.object({
  type: z.literal("describeIn"),
  id,
  /** A BCP 47 tag; null for the model's own language. */
  language: z
    .string()
    .regex(/^[A-Za-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/, "A language is a tag such as de or pt-BR.")
    .nullable(),
  text: richTextSchema.refine((node) => node.type === "doc", "A text is one document."),
});
export const setLinksSchema = z.object({
  type: z.literal("setLinks"),
  id,
  links: z
    .array(
      z.discriminatedUnion("kind", [
        z.object({ kind: z.literal("page"), title: z.string().max(300), href: z.string().max(2000) }),
        z.object({ kind: z.literal("file"), title: z.string().max(300), file: id }),
      ]),
    )
    .max(100),
});
export const setCalledVersionSchema = z.object({
  type: z.literal("setCalledVersion"),
  id,
  called: z.object({ version: id, name: z.string().max(200) }).nullable(),
});

export const setCalledSchema = z.object({
  type: z.literal("setCalled"),
  id,
  /** The id it has in files, and the record it is in the workspace; null where nothing is called. */
  called: z.object({ id, process: id.nullable(), name: z.string().max(2000) }).nullable(),
});

/** What an element's documentation says in one language. */
export function describeIn(change: Change, { id: elementId, language, text }: z.infer<typeof describeInSchema>): void {
  const element = change.element(elementId);
  change.set("elements", elementId, "documentation", withDocumentation(element, language ?? undefined, text));
}

/** The pages and files that belong to an element. */
export function setLinks(change: Change, { id: elementId, links }: z.infer<typeof setLinksSchema>): void {
  const element = change.element(elementId);
  for (const link of links) {
    if (link.kind === "page" && !safeAddress.test(link.href))
      refuse(
        "no-address",
        say`“${link.href}” is no address. Write one that starts with https://, http:// or mailto:.`,
        [elementId],
      );
  }
  change.set("elements", elementId, "extension", withLinks(element, links));
}

/** Which process is called; which version of another one was meant says nothing any more. */
export function setCalled(change: Change, { id: elementId, called: to }: z.infer<typeof setCalledSchema>): void {
  const element = change.element(elementId);
  if (element.type !== "callActivity")
    refuse("not-a-call", say`${called(change.model, element)} calls no process.`, [elementId]);
  change.set("elements", elementId, "calledElement", to?.id);
  const record = to?.process ? { process: to.process, name: to.name.slice(0, 200) } : null;
  change.set("elements", elementId, "extension", withCalledProcess(change.element(elementId), record));
  change.set("elements", elementId, "extension", withCalledVersion(change.element(elementId), null));
}

/** Which version of the called process is meant. */
export function setCalledVersion(
  change: Change,
  { id: elementId, called: version }: z.infer<typeof setCalledVersionSchema>,
): void {
  const element = change.element(elementId);
  if (element.type !== "callActivity")
    refuse("not-a-call", say`${called(change.model, element)} calls no process.`, [elementId]);
  change.set("elements", elementId, "extension", withCalledVersion(element, version));
}
