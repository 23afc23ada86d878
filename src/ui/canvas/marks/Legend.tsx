"use client";
import { Box, Button, chakra, Flex, Popover, Portal } from "@chakra-ui/react";
import { useMemo } from "react";
import type { Figure } from "@/core/drawing";
import { term } from "@/core/messages";
import { FootTools } from "../../controls/Foot";
import { text } from "../../messages";
import { Marks } from "./Marks";
import { type Mark, meaningsOf } from "./mark";
import { paper, tones } from "./tones";

/** What the marks of a drawing mean: those that are on it, no others. Opened from the foot when one asks. */
export function Legend({ marks }: { readonly marks: readonly Mark[] }) {
  const meanings = useMemo(() => meaningsOf(marks), [marks]);
  if (meanings.length === 0) return null;
  return (
    <Popover.Root positioning={{ placement: "top-start" }} lazyMount unmountOnExit>
      <FootTools>
        <Popover.Trigger asChild>
          <Button
            size="xs"
            variant="outline"
            bg="paper"
            borderColor="line"
            onClick={(event) => event.stopPropagation()}
          >
            {text.legend.open}
          </Button>
        </Popover.Trigger>
      </FootTools>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="auto" maxW="320px" bg="paper" borderWidth="1px" borderColor="line" boxShadow="none">
            <Popover.Body p={3} onClick={(event) => event.stopPropagation()}>
              <Popover.Title srOnly>{text.legend.open}</Popover.Title>
              <chakra.ul listStyleType="none" data-testid="legend">
                {meanings.map((mark) => (
                  <LegendEntry key={mark.means} mark={mark} />
                ))}
              </chakra.ul>
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** A sample of a mark beside what it means. */
export function LegendEntry({ mark }: { readonly mark: Mark }) {
  return (
    <Flex as="li" gap={2.5} align="center" minH="26px" fontSize="13px">
      <Box flexShrink={0} aria-hidden="true">
        <svg width="46" height="26" viewBox="0 0 46 26" role="presentation">
          <Sample mark={mark} />
        </svg>
      </Box>
      {text.marks[mark.means]}
    </Flex>
  );
}

function Sample({ mark }: { readonly mark: Mark }) {
  if (mark.as === "pen") {
    const isNew = mark.pen === "to";
    const stroke = isNew ? tones.accent.colour : tones.pencil.colour;
    return (
      <>
        {isNew && <rect x="12" y="9" width="26" height="13" rx="3" fill="none" stroke={stroke} />}
        <rect
          x="8"
          y="5"
          width="26"
          height="13"
          rx="3"
          fill={paper}
          stroke={stroke}
          strokeWidth="1.4"
          strokeDasharray={isNew ? undefined : tones.pencil.dash}
        />
      </>
    );
  }
  if (mark.as === "arrow")
    return <path d="M6 13H38M33 9L38 13L33 17" fill="none" stroke={tones.accent.colour} strokeWidth="1.3" />;
  const sample = sampleOf(mark);
  return <Marks marks={[sample.mark]} figures={new Map([[mark.on, sample.figure]])} />;
}

/** A small element that carries just this mark. */
function sampleOf(mark: Mark): { mark: Mark; figure: Figure } {
  const isAlong = mark.as === "ribbon" || mark.as === "dashes";
  const bounds = mark.as === "frame" ? { x: 12, y: 8, width: 22, height: 10 } : { x: 23, y: 13, width: 0, height: 0 };
  const figure: Figure = {
    id: mark.on,
    type: isAlong ? "sequenceFlow" : "task",
    title: term(""),
    layer: 0,
    primitives: [],
    bounds,
    ...((isAlong || mark.as === "label" || (mark.as === "sign" && mark.sign === "hand-over")) && {
      line: [
        { x: 6, y: 13 },
        { x: 40, y: 13 },
      ],
    }),
  };
  if (mark.as === "sign") {
    const { words: _, ...plain } = mark;
    return { mark: plain, figure };
  }
  // A sample has no room for words.
  return { mark: mark.as === "label" && mark.text.length > 3 ? { ...mark, text: "…" } : mark, figure };
}
