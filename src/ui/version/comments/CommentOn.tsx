"use client";
import { Button } from "@chakra-ui/react";
import { MessageSquare } from "lucide-react";
import { comments } from "@/contract";
import type { About } from "@/contract/comments";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion } from "../VersionContext";
import { openThreads } from "./openThreads";
import { commentOn } from "./store";

const words = text.comments;

/** Opens the comments on something; says how many threads about it are open. */
export function CommentOn({ about }: { readonly about: About }) {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(comments.listThreads, { version }, { keepsLast: true });
  const open = openThreads(data?.threads ?? [], about.kind).get(about.key) ?? 0;
  return (
    <Button
      size="2xs"
      variant="ghost"
      minW="24px"
      px={0.5}
      gap={0.5}
      color={open > 0 ? "accent" : "quiet"}
      aria-label={open > 0 ? words.onOpen(about.words, open) : words.newAbout(about.words)}
      title={words.newAbout(about.words)}
      onClick={(event) => {
        event.stopPropagation();
        commentOn(about);
      }}
    >
      <MessageSquare size={13} aria-hidden />
      {open > 0 && open}
    </Button>
  );
}
