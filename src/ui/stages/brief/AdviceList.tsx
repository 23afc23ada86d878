"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import { nanoid } from "nanoid";
import { useState } from "react";
import type { Advice, BriefPart } from "@/core/brief";
import { text, worded } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { Heading } from "./Heading";
import { assign, changeKind, showMark, showSentence } from "./pageActions";
import type { Reading } from "./useReading";

const shownAtFirst = 4;

/** What a practised eye remarks on the text, each with its reason and, where there is one, the way to follow it. */
export function AdviceList({ editor, told }: { readonly editor: Editor | null; readonly told: Reading }) {
  const [all, setAll] = useState(false);
  const { advice } = told;
  if (advice.length === 0) return null;
  const shown = all ? advice : advice.slice(0, shownAtFirst);
  return (
    <Box as="section" data-testid="advice">
      <Heading>{text.brief.advice(advice.length)}</Heading>
      <chakra.ul listStyleType="none" m={0}>
        {shown.map((one) => (
          <Box as="li" key={one.id} py={1.5} borderTopWidth="1px" borderColor="line" data-advice={one.kind}>
            <chakra.p fontSize="13px">{worded(one.message)}</chakra.p>
            <chakra.p fontSize="12px" color="quiet">
              {worded(one.reason)}
            </chakra.p>
            <Flex gap={1.5} mt={1} wrap="wrap">
              <Button
                size="2xs"
                variant="outline"
                borderColor="line"
                bg="paper"
                onClick={() => show(editor, told, one)}
              >
                {text.brief.show}
              </Button>
              {waysToFollow(editor, told, one).map(([words, follow]) => (
                <Button key={words} size="2xs" variant="outline" borderColor="accent" bg="paper" onClick={follow}>
                  {words}
                </Button>
              ))}
            </Flex>
          </Box>
        ))}
      </chakra.ul>
      {!all && advice.length > shownAtFirst && (
        <Button size="2xs" variant="ghost" onClick={() => setAll(true)}>
          {text.brief.moreAdvice(advice.length - shownAtFirst)}
        </Button>
      )}
    </Box>
  );
}

function show(editor: Editor | null, told: Reading, advice: Advice): void {
  if (!editor) return;
  if (advice.sentence !== undefined) showSentence(editor, told.reading, advice.sentence);
  else if (advice.marks[0]) showMark(editor, advice.marks[0]);
}

function waysToFollow(
  editor: Editor | null,
  told: Reading,
  advice: Advice,
): readonly (readonly [string, () => void])[] {
  if (!editor) return [];
  const { reading } = told;
  const { content, change } = useBrief.getState();
  const sentenceOf = (mark: string) =>
    reading.sentences.find((sentence) => sentence.marks.some((one) => one.id === mark));
  switch (advice.kind) {
    case "several-triggers": {
      const apart = advice.triggers.filter(
        (trigger) => sentenceOf(trigger)?.marks.filter((mark) => mark.kind === "trigger").length === 1,
      );
      if (apart.length === 0) return [];
      const part = () => {
        for (const trigger of apart) {
          const sentence = sentenceOf(trigger);
          if (sentence) assign(editor, sentence, { belongs: trigger });
        }
      };
      return [[text.brief.ownProcess, part]];
    }
    case "recurring-time":
      return [[text.brief.makeTrigger, () => changeKind(editor, [advice.mark], "trigger")]];
    case "party-as-lane":
      return [[text.brief.makeParty, () => changeKind(editor, advice.marks, "party")]];
    case "same-work":
      return [[text.brief.callIt, () => change({ shared: [...content.shared, advice.key] })]];
    case "too-much": {
      const factor = (kind: BriefPart["kind"]) => () => {
        const id = nanoid(10);
        const passage = reading.passages[advice.passage];
        if (!passage) return;
        change({ parts: [...content.parts, { id, kind, name: advice.name.slice(0, 200), of: advice.frame }] });
        assign(editor, { passage: passage.at, from: 0, to: passage.text.length }, { belongs: id });
      };
      return [
        [text.brief.asSubProcess, factor("sub-process")],
        [text.brief.asProcess, factor("process")],
      ];
    }
    case "unaccounted": {
      const sentence = reading.sentences[advice.sentence ?? -1];
      return sentence ? [[text.brief.setAside, () => assign(editor, sentence, "aside")]] : [];
    }
    default:
      return [];
  }
}
