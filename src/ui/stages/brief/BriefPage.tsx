"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type Editor, EditorContent } from "@tiptap/react";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import type { Mark } from "@/core/brief";
import { text, worded } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { useTalkedOf } from "../../version/comments/useTalkedOf";
import { kindLetters, kindWords } from "./markKeys";
import { pageSigns } from "./pageSigns";
import { pageStyle } from "./pageStyle";
import type { Reading } from "./useReading";
import { passageStarts, signsKey } from "./wordMark";

interface BriefPageProps {
  readonly editor: Editor | null;
  readonly told: Reading;
  readonly onMark: (mark: string) => void;
  readonly onBadge: (sentence: number, at: DOMRect) => void;
  readonly onQuestion: (id: string) => void;
}

const tagHeight = 20;
/** People, systems and documents stand in the panel; the margin tells what happens. */
const isThing = (kind: Mark["kind"]) => ["role", "party", "system", "document"].includes(kind);

/** The page with its text, and beside it what its marks say. */
export function BriefPage({ editor, told, onMark, onBadge, onQuestion }: BriefPageProps) {
  const { suggestions, current, selected, mode } = useBrief();
  const frame = useRef<HTMLDivElement>(null);
  const [lines, setLines] = useState<readonly { readonly top: number; readonly marks: readonly Mark[] }[]>([]);
  const { reading, numbers, frames, coverage, linked } = told;
  const talkedOf = useTalkedOf();
  const isEmpty = editor?.isEmpty === true && reading.sentences.length === 0;

  // Signs are laid over the text they were worked out for; while that is behind the typing, the old ones move along.
  useEffect(() => {
    if (!editor || editor.isDestroyed) return;
    const starts = passageStarts(editor.state.doc);
    if (starts.length !== reading.passages.length) return;
    const openSentences = new Set(coverage.open.map((sentence) => sentence.at));
    const signs = pageSigns({
      reading,
      starts,
      numbers,
      frames,
      openSentences,
      talkedOf,
      questions: new Map(
        frames
          .flatMap((frame) => frame.open)
          .map(({ sentence, id, question }) => [sentence, { id, words: worded(question) }]),
      ),
      linked,
      suggestions,
      current,
      selected,
    });
    const { size } = editor.state.doc.content;
    editor.view.dispatch(
      editor.state.tr
        .setMeta(
          signsKey,
          signs.filter((sign) => sign.to <= size),
        )
        .setMeta("addToHistory", false),
    );
  }, [editor, reading, numbers, frames, coverage, linked, suggestions, current, selected, talkedOf]);

  const place = useCallback(() => {
    if (!editor || editor.isDestroyed || !frame.current) return;
    const top = frame.current.getBoundingClientRect().top;
    const starts = passageStarts(editor.state.doc);
    const byLine = new Map<number, Mark[]>();
    for (const mark of reading.marks) {
      const at = (starts[mark.passage] ?? 0) + mark.from;
      if (isThing(mark.kind) || at > editor.state.doc.content.size) continue;
      const y = Math.round(editor.view.coordsAtPos(at).top - top);
      // Letters set high move a place by a pixel or two.
      const line = [...byLine.keys()].find((known) => Math.abs(known - y) < 12) ?? y;
      byLine.set(line, [...(byLine.get(line) ?? []), mark]);
    }
    setLines([...byLine].map(([y, marks]) => ({ top: y, marks })));
  }, [editor, reading]);
  useLayoutEffect(() => {
    place();
    const watcher = new ResizeObserver(place);
    if (frame.current) watcher.observe(frame.current);
    return () => watcher.disconnect();
  }, [place]);

  return (
    <Box flex="1" minW={0} overflowY="auto" bg="ground" data-testid="brief-scroll">
      <Box
        ref={frame}
        position="relative"
        maxW="880px"
        mx="auto"
        my={4}
        ps="52px"
        pe="258px"
        py={6}
        bg="paper"
        borderWidth="1px"
        borderColor="line"
        minH="calc(100% - 32px)"
        css={pageStyle}
        data-mode={mode}
        onClick={(event) => {
          const badge = (event.target as Element).closest<HTMLElement>(".process-badge");
          const asked = (event.target as Element).closest<HTMLElement>(".question-sign")?.dataset.asked;
          if (asked) onQuestion(asked);
          if (badge) onBadge(Number(badge.dataset.sentence), badge.getBoundingClientRect());
        }}
      >
        {isEmpty && (
          <chakra.p
            position="absolute"
            top="24px"
            left="52px"
            right="258px"
            lineHeight="26px"
            color="quiet"
            pointerEvents="none"
          >
            {text.brief.empty}
          </chakra.p>
        )}
        <EditorContent editor={editor} />
        <Box
          as="ul"
          aria-label={text.brief.margin}
          position="absolute"
          top={0}
          right="10px"
          w="236px"
          m={0}
          listStyleType="none"
        >
          {lines.map(({ top, marks }) => (
            <Flex
              key={top}
              as="li"
              position="absolute"
              left={0}
              right={0}
              gap={1}
              style={{ top }}
              h={`${tagHeight}px`}
              data-testid="margin-line"
            >
              {marks.map((mark) => (
                <Tag
                  key={mark.id}
                  mark={mark}
                  name={told.links.get(mark.id)?.[0]?.name || mark.text}
                  isLinked={linked.has(mark.id)}
                  isSelected={mark.id === selected}
                  onChoose={() => onMark(mark.id)}
                />
              ))}
            </Flex>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

interface TagProps {
  readonly mark: Mark;
  readonly name: string;
  readonly isLinked: boolean;
  readonly isSelected: boolean;
  readonly onChoose: () => void;
}

/** What a mark became, or will become: its letter, and the element's name once there is one. */
function Tag({ mark, name, isLinked, isSelected, onChoose }: TagProps) {
  return (
    <chakra.button
      type="button"
      onClick={onChoose}
      display="flex"
      alignItems="center"
      gap={1.5}
      flex="1"
      minW="34px"
      h="19px"
      px={1}
      fontSize="12px"
      textAlign="start"
      borderRadius="4px"
      cursor="pointer"
      bg={isSelected ? "accentSoft" : undefined}
      color={isLinked ? "ink" : "quiet"}
      title={`${kindWords(mark.kind)}: ${name}`}
      aria-label={text.brief.tag(kindWords(mark.kind), name, isLinked)}
    >
      <chakra.span fontWeight="700" w="11px" color="accent" aria-hidden>
        {kindLetters[mark.kind]}
      </chakra.span>
      <chakra.span aria-hidden color={isLinked ? "good" : "pencil"}>
        {isLinked ? "●" : "○"}
      </chakra.span>
      <chakra.span truncate>{name}</chakra.span>
    </chakra.button>
  );
}
