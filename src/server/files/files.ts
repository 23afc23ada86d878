import { eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { files as terms } from "@/contract";
import { say } from "@/core/messages";
import { files } from "@/data/schema";
import { notFound, query, UseCaseError, useCase } from "../kernel/useCase";

/** What may be kept with an element, by ending; the type a browser is told is ours, never the sender's. */
const types: { readonly [ending: string]: string } = {
  pdf: "application/pdf",
  png: "image/png",
  jpg: "image/jpeg",
  jpeg: "image/jpeg",
  webp: "image/webp",
  txt: "text/plain; charset=utf-8",
  md: "text/markdown; charset=utf-8",
  csv: "text/csv; charset=utf-8",
  json: "application/json",
  xml: "application/xml",
  docx: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
  xlsx: "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
  pptx: "application/vnd.openxmlformats-officedocument.presentationml.presentation",
  odt: "application/vnd.oasis.opendocument.text",
  ods: "application/vnd.oasis.opendocument.spreadsheet",
};
export const mostFileBytes = 10 * 1024 * 1024;

/** Keeps a file with the workspace, for an element to name. */
export const keepFile = useCase(terms.keepFile, async ({ db, member, now }, { name, bytes }) => {
  const type = types[name.slice(name.lastIndexOf(".") + 1).toLowerCase()];
  if (!type)
    throw new UseCaseError(
      "file-type",
      say`${name} is of a kind that is not kept here. Kept are ${Object.keys(types).join(", ")}; for others, add a link.`,
      415,
    );
  if (bytes.length === 0) throw new UseCaseError("empty-file", say`${name} is empty.`);
  if (bytes.length > mostFileBytes)
    throw new UseCaseError("too-large", say`${name} is larger than the 10 MB a file may have. Add a link to it.`, 413);
  const id = `file-${nanoid(12)}`;
  await db.insert(files).values({ id, name, type, size: bytes.length, content: bytes, member: member.id, at: now() });
  return { id, name, size: bytes.length };
});

export const openFile = query(terms.openFile, async ({ db }, { id }) => {
  const [file] = await db.select().from(files).where(eq(files.id, id));
  if (!file) throw notFound("This file");
  return { name: file.name, type: file.type, bytes: file.content };
});
