"use client";
import { Button } from "@chakra-ui/react";
import { MessageSquare } from "lucide-react";
import { comments } from "@/contract";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useCommentsShown } from "../../version/comments/store";
import { useVersion } from "../../version/VersionContext";

const words = text.comments;

/** Opens and closes the comments; says how many threads are open. */
export function CommentsButton() {
  const version = useVersion((state) => state.info.version.id);
  const { data } = useAsked(comments.listThreads, { version }, { keepsLast: true });
  const { isOpen, set } = useCommentsShown();
  const open = data?.threads.filter(({ resolved }) => resolved === null).length ?? 0;
  return (
    <Button
      variant="ghost"
      h="30px"
      px={2}
      gap={1}
      fontWeight="400"
      flexShrink={0}
      aria-label={words.openTitle(open)}
      aria-expanded={isOpen}
      onClick={() => set({ isOpen: !isOpen })}
    >
      <MessageSquare size={15} aria-hidden />
      {open > 0 && open}
    </Button>
  );
}
