"use client";
import { useEffect, useMemo } from "react";
import { type Mark, markOfKey, readBrief, type Sentence } from "@/core/brief";
import { type Element, wordsOf } from "@/core/model";
import { PageLink } from "../controls/PageLink";
import { text, worded } from "../messages";
import { useBrief } from "./briefStore";
import { useVersion } from "./VersionContext";

const longest = 100;

const isThing = (mark: Mark) => ["role", "party", "system", "document"].includes(mark.kind);

/** As much of a sentence around a mark as fits. */
function around(sentence: Sentence, mark: Mark): string {
  const { text, from } = sentence;
  if (text.length <= longest) return text;
  const middle = (mark.from + mark.to) / 2 - from;
  const start = Math.max(0, Math.min(text.length - longest, Math.round(middle - longest / 2)));
  const left = start === 0 ? 0 : text.indexOf(" ", start) + 1;
  const end = start + longest >= text.length ? text.length : text.lastIndexOf(" ", start + longest);
  return `${left > 0 ? "… " : ""}${text.slice(left, end)}${end < text.length ? " …" : ""}`;
}

/** The words an element was taken from, each a way back to its sentence. Nothing where it was taken from none. */
export function InTheBrief({ element }: { readonly element: Element }) {
  const process = useVersion((state) => state.info.process.id);
  const version = useVersion((state) => state.info.version.id);
  const asks = useVersion((state) => state.info.brief?.asks);
  const marks = wordsOf(element);
  const isNeeded = marks.length > 0;
  const open = useBrief((state) => state.process);
  const document = useBrief((state) => state.content.document);
  useEffect(() => {
    if (isNeeded && open !== process) void useBrief.getState().open(process);
  }, [isNeeded, open, process]);
  const reading = useMemo(() => (isNeeded ? readBrief(document) : undefined), [isNeeded, document]);
  // One way back to each sentence: by the mark that says most of it.
  const bySentence = new Map<number, { mark: Mark; words: string }>();
  for (const mark of reading?.marks.filter((one) => marks.some((key) => markOfKey(key) === one.id)) ?? []) {
    const sentence = reading?.sentences.find((one) => one.marks.includes(mark));
    const key = sentence?.at ?? -1;
    const known = bySentence.get(key);
    if (!known || (isThing(known.mark) && !isThing(mark)))
      bySentence.set(key, { mark, words: sentence ? around(sentence, mark) : mark.text });
  }
  const found = [...bySentence.values()];
  const asked = asks?.filter((one) => one.marks.some((mark) => marks.includes(mark))) ?? [];
  return [
    ...asked.slice(0, 1).map((one) => (
      <PageLink
        key={one.id}
        href={`/v/${encodeURIComponent(version)}/brief`}
        color="attention"
        display="block"
        lineHeight="1.35"
        _hover={{ textDecoration: "underline" }}
      >
        {text.brief.leftOpen(worded(one.question))}
      </PageLink>
    )),
    ...found.slice(0, 3).map(({ mark, words }) => (
      <PageLink
        key={mark.id}
        href={`/v/${encodeURIComponent(version)}/brief?mark=${encodeURIComponent(mark.id)}`}
        color="accent"
        display="block"
        lineHeight="1.35"
        _hover={{ textDecoration: "underline" }}
      >
        “{words}”
      </PageLink>
    )),
  ];
}
