"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { kindWords } from "./markKeys";
import { acceptSuggestions, refuseSuggestions } from "./pageActions";

/** Suggested marks, one by one or all: nothing is marked that nobody accepted. */
export function SuggestionReview({ editor }: { readonly editor: Editor | null }) {
  const suggestions = useBrief((state) => state.suggestions) ?? [];
  const current = useBrief((state) => state.current);
  const { set } = useBrief.getState();
  const one = suggestions[current];
  if (!one || !editor) return null;
  const turn = (by: number) => set({ current: (current + by + suggestions.length) % suggestions.length });
  return (
    <Box
      as="section"
      aria-label={text.brief.suggestions}
      p={3}
      bg="accentSoft"
      borderWidth="1px"
      borderColor="accent"
      borderRadius="6px"
      data-testid="suggestion"
    >
      <Flex justify="space-between" color="quiet" fontSize="12px" mb={1}>
        <span>{text.brief.suggestionAt(current + 1, suggestions.length)}</span>
        <Flex gap={1}>
          <Button size="2xs" variant="ghost" onClick={() => turn(-1)}>
            {text.brief.before}
          </Button>
          <Button size="2xs" variant="ghost" onClick={() => turn(1)}>
            {text.brief.next} <Keycap>Tab</Keycap>
          </Button>
        </Flex>
      </Flex>
      <chakra.p>
        <chakra.strong color="accent">{kindWords(one.kind)}</chakra.strong> “{one.text}”
      </chakra.p>
      <chakra.p color="quiet" fontSize="13px" mb={2}>
        {one.reason}
      </chakra.p>
      <Flex gap="6px" wrap="wrap">
        <Button size="xs" bg="accent" color="onAccent" px={2} onClick={() => acceptSuggestions(editor, [one])}>
          {text.brief.accept} <Keycap>Enter</Keycap>
        </Button>
        <Button size="xs" variant="outline" bg="paper" px={2} onClick={() => refuseSuggestions([one])}>
          {text.brief.refuse} <Keycap>⌫</Keycap>
        </Button>
        <Button size="xs" variant="outline" bg="paper" px={2} onClick={() => acceptSuggestions(editor, suggestions)}>
          {text.brief.acceptAll}
        </Button>
        <Button size="xs" variant="outline" bg="paper" px={2} onClick={() => refuseSuggestions(suggestions)}>
          {text.brief.refuseAll}
        </Button>
        <Button size="xs" variant="ghost" px={2} onClick={() => set({ suggestions: null })}>
          {text.brief.stop} <Keycap>Esc</Keycap>
        </Button>
      </Flex>
    </Box>
  );
}
