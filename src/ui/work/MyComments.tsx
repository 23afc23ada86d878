"use client";
import { chakra } from "@chakra-ui/react";
import { comments } from "@/contract";
import type { MyThread } from "@/contract/comments";
import { momentWords } from "../controls/moment";
import { PageLink } from "../controls/PageLink";
import { useAsked } from "../kernel/queries";
import { text } from "../messages";

const words = text.comments;

const pathOf = ({ version, about }: MyThread) =>
  `/v/${encodeURIComponent(version)}/diagram?comments${about.kind === "element" ? `&element=${encodeURIComponent(about.key)}` : ""}`;

/** Open threads in which one is mentioned, or that one is to see to; each leads to where it is. */
export function MyComments() {
  const { data } = useAsked(comments.myThreads, {}, { keepsLast: true });
  if (!data || data.threads.length === 0) return null;
  return (
    <chakra.section aria-label={words.mineTitle} data-testid="my-comments">
      <chakra.h2 fontSize="13px" fontWeight="700" mb={1}>
        {words.mine(data.threads.length)}
      </chakra.h2>
      <chakra.ul listStyleType="none">
        {data.threads.map((thread) => {
          const last = thread.said.at(-1);
          return (
            <chakra.li key={thread.id} borderTopWidth="1px" borderColor="line" py={1.5}>
              <PageLink href={pathOf(thread)} color="accent" fontWeight="600">
                {thread.process}: {thread.about.words}
              </PageLink>
              <chakra.span display="block" fontSize="12px" color="quiet" lineClamp={2}>
                {last ? `${last.name}, ${momentWords(last.at)}: ${last.text}` : ""}
              </chakra.span>
            </chakra.li>
          );
        })}
      </chakra.ul>
    </chakra.section>
  );
}
