"use client";
import { Box, Button, chakra, Flex, Progress } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { type Frame, type Mark, stepsIn, thingName } from "@/core/brief";
import { Keycap } from "../../controls/Keycap";
import { text } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { AdviceList } from "./AdviceList";
import { FrameCard } from "./FrameCard";
import { Heading } from "./Heading";
import { MarkDetail } from "./MarkDetail";
import { assign, showMark, showSentence } from "./pageActions";
import { QuestionList } from "./QuestionList";
import { SuggestionReview } from "./SuggestionReview";
import type { Reading } from "./useReading";

interface WholePanelProps {
  readonly editor: Editor | null;
  readonly told: Reading;
  readonly building: boolean;
  readonly onSuggest: () => void;
  readonly onBuild: (frames?: readonly string[]) => void;
  readonly onNextOpen: () => void;
}

/** The whole first: which processes the text tells of, who takes part, what a practised eye remarks, and the way to build them. */
export function WholePanel({ editor, told, building, onBuild, onSuggest, onNextOpen }: WholePanelProps) {
  const isUnmarked = told.reading.marks.length === 0;
  const hasWords = told.reading.sentences.length > 0;
  const { content, processes, change, suggestions, selected } = useBrief();
  const { frames, reading, coverage, linked } = told;
  const isBuiltMark = (frame: Frame, mark: string) =>
    linked.has(mark) || (content.built[frame.key] ?? []).includes(mark);
  const freshIn = (frame: Frame) => stepsIn(frame.items).filter((step) => !isBuiltMark(frame, step.mark)).length;
  const rename = (key: string, name: string) => {
    const others = content.frames.filter((one) => one.key !== key);
    const known = content.frames.find((one) => one.key === key);
    change({ frames: [...others, { ...known, key, ...(name ? { name } : { name: undefined }) }] });
  };
  const putBack = (frame: Frame, part: string | null) => {
    if (frame.kind === "shared")
      return change({ shared: content.shared.filter((key) => `shared:${key}` !== frame.key) });
    const id = part ?? frame.key;
    if (editor) for (const sentence of reading.sentences) if (sentence.assigned === id) assign(editor, sentence, null);
    return change({ ...useBrief.getState().content, parts: content.parts.filter((one) => one.id !== id) });
  };
  const fresh = frames.filter((frame) => !built(frame) || freshIn(frame) > 0);
  function built(frame: Frame) {
    return processes.find((process) => process.id === frame.process);
  }
  const isGrowing = frames.some(built);
  const count = fresh.reduce((sum, frame) => sum + freshIn(frame), 0);
  return (
    <Flex
      as="aside"
      aria-label={text.brief.whole}
      direction="column"
      w="384px"
      flexShrink={0}
      bg="sheet"
      borderLeftWidth="1px"
      borderColor="line"
      minH={0}
      data-testid="whole"
    >
      <Box flex="1" minH={0} overflowY="auto" px={4} py={3}>
        <Flex direction="column" gap={3}>
          {suggestions && <SuggestionReview editor={editor} />}
          {!suggestions && selected && <MarkDetail editor={editor} told={told} />}
          <Box>
            <Flex justify="space-between" align="center" mb={1}>
              <chakra.span data-testid="coverage">
                {coverage.sentences === 0
                  ? text.brief.nothingToCover
                  : text.brief.coverage(Math.floor(coverage.share * 100), coverage.accounted, coverage.sentences)}
              </chakra.span>
              {coverage.open.length > 0 && (
                <Button size="2xs" variant="ghost" onClick={onNextOpen}>
                  {text.brief.nextOpen} <Keycap>U</Keycap>
                </Button>
              )}
            </Flex>
            <Progress.Root
              value={coverage.sentences === 0 ? 0 : coverage.share * 100}
              size="xs"
              aria-label={text.brief.coverageLabel}
            >
              <Progress.Track bg="line">
                <Progress.Range bg="good" />
              </Progress.Track>
            </Progress.Root>
          </Box>
          <QuestionList editor={editor} told={told} />
          <Box as="section">
            <Heading>{text.brief.processes}</Heading>
            {frames.length === 0 && <chakra.p color="quiet">{text.brief.noProcesses}</chakra.p>}
            <chakra.ul listStyleType="none" m={0}>
              {frames.map((frame, at) => (
                <FrameCard
                  key={frame.key}
                  frame={frame}
                  number={at + 1}
                  built={built(frame)}
                  fresh={freshIn(frame)}
                  parts={content.parts.filter((part) => part.of === frame.key && part.kind === "sub-process")}
                  onRename={(name) => rename(frame.key, name)}
                  onShow={() => {
                    const [first] = frame.sentences;
                    if (editor && first) showSentence(editor, reading, first.at);
                  }}
                  onBuild={() => onBuild([frame.key])}
                  onPutBack={(part) => putBack(frame, part?.id ?? null)}
                />
              ))}
            </chakra.ul>
          </Box>
          {(["role", "party", "system", "document"] as const).map((kind) => (
            <Things
              key={kind}
              editor={editor}
              title={text.brief.things[kind]}
              marks={reading.marks.filter((mark) => mark.kind === kind)}
            />
          ))}
          <AdviceList editor={editor} told={told} />
        </Flex>
      </Box>
      <Box px={4} py={3} borderTopWidth="1px" borderColor="line" bg="paper">
        <Flex gap={2} align="center" mb={2}>
          <chakra.label fontSize="13px" color="quiet" htmlFor="brief-organisation">
            {text.brief.organisation}
          </chakra.label>
          <chakra.input
            id="brief-organisation"
            key={content.organisation}
            defaultValue={content.organisation}
            placeholder={text.brief.organisationHint}
            flex="1"
            h="26px"
            px={2}
            fontSize="13px"
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            onBlur={(event) =>
              event.target.value.trim() !== content.organisation && change({ organisation: event.target.value.trim() })
            }
          />
        </Flex>
        <Button
          w="100%"
          size="sm"
          bg="accent"
          color="onAccent"
          // Where nothing is marked yet, that is the first step; there is nothing to build from.
          disabled={building || (count === 0 && !isGrowing && (!isUnmarked || !hasWords))}
          loading={building}
          loadingText={text.brief.building}
          onClick={() => (isUnmarked ? onSuggest() : onBuild())}
        >
          {count === 0
            ? isGrowing
              ? text.brief.lookAgain
              : isUnmarked
                ? text.brief.suggestFirst
                : text.brief.buildNothing
            : isGrowing
              ? text.brief.buildMore(count)
              : text.brief.build(frames.length)}
        </Button>
      </Box>
    </Flex>
  );
}

function Things({
  editor,
  title,
  marks,
}: {
  readonly editor: Editor | null;
  readonly title: string;
  readonly marks: readonly Mark[];
}) {
  const named = new Map<string, Mark>();
  for (const mark of marks) if (!named.has(thingName(mark.text))) named.set(thingName(mark.text), mark);
  if (named.size === 0) return null;
  return (
    <Box as="section">
      <Heading>{title}</Heading>
      <Flex gap={1.5} wrap="wrap">
        {[...named].map(([name, mark]) => (
          <chakra.button
            key={name}
            type="button"
            onClick={() => editor && showMark(editor, mark.id)}
            px={2}
            h="24px"
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            cursor="pointer"
            _hover={{ borderColor: "accent" }}
          >
            {name}
          </chakra.button>
        ))}
      </Flex>
    </Box>
  );
}
