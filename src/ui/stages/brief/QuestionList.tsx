"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import type { Editor } from "@tiptap/react";
import type { KeyboardEvent } from "react";
import type { OpenQuestion } from "@/core/brief";
import { Keycap } from "../../controls/Keycap";
import { text, worded } from "../../messages";
import { useBrief } from "../../version/briefStore";
import { Heading } from "./Heading";
import { showSentence } from "./pageActions";
import { questionPlace } from "./questions";
import type { Reading } from "./useReading";

/** What the text leaves open, each question with its answers: one click, or its number while the keyboard is on it. */
export function QuestionList({ editor, told }: { readonly editor: Editor | null; readonly told: Reading }) {
  const questions = told.frames.flatMap((frame) => frame.open);
  const settled = useBrief((state) => state.content.answers);
  const given = Object.keys(settled ?? {}).length;
  if (questions.length === 0 && given === 0) return null;
  return (
    <Box as="section" data-testid="questions">
      <Flex justify="space-between" align="center">
        <Heading>{text.brief.questions(questions.length)}</Heading>
        {questions.length > 0 && (
          <chakra.span fontSize="12px" color="quiet">
            {text.brief.nextQuestion} <Keycap>Q</Keycap>
          </chakra.span>
        )}
      </Flex>
      <chakra.ul listStyleType="none" m={0}>
        {questions.map((question) => (
          <Question key={question.id} question={question} editor={editor} told={told} />
        ))}
      </chakra.ul>
      {given > 0 && (
        <Flex align="center" gap={2} pt={1}>
          <chakra.span fontSize="12px" color="quiet">
            {text.brief.answered(given)}
          </chakra.span>
          <Button size="2xs" variant="ghost" onClick={() => useBrief.getState().change({ answers: {} })}>
            {text.brief.askAgain}
          </Button>
        </Flex>
      )}
    </Box>
  );
}

interface QuestionProps {
  readonly question: OpenQuestion;
  readonly editor: Editor | null;
  readonly told: Reading;
}

function Question({ question, editor, told }: QuestionProps) {
  const answer = (choice: string) => {
    const { content, change } = useBrief.getState();
    change({ answers: { ...content.answers, [question.id]: choice } });
  };
  const onKey = (event: KeyboardEvent) => {
    const choice = question.choices[Number(event.key) - 1];
    if (!choice || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    answer(choice.id);
  };
  const sentence = told.reading.sentences[question.sentence]?.text ?? "";
  return (
    <Box
      as="li"
      id={questionPlace(question.id)}
      py={1.5}
      borderTopWidth="1px"
      borderColor="line"
      data-question={question.id}
      onKeyDown={onKey}
    >
      <chakra.p fontSize="13px" fontWeight="600">
        {worded(question.question)}
      </chakra.p>
      <chakra.button
        type="button"
        display="block"
        w="100%"
        textAlign="start"
        fontSize="12px"
        color="quiet"
        cursor="pointer"
        truncate
        title={sentence}
        onClick={() => editor && showSentence(editor, told.reading, question.sentence)}
      >
        {sentence}
      </chakra.button>
      <Flex gap={1.5} mt={1} wrap="wrap">
        {question.choices.map((choice, at) => (
          <Button
            key={choice.id}
            data-answer={choice.id}
            size="2xs"
            variant="outline"
            borderColor="accent"
            bg="paper"
            onClick={() => answer(choice.id)}
          >
            {worded(choice.label)} <Keycap>{String(at + 1)}</Keycap>
          </Button>
        ))}
      </Flex>
    </Box>
  );
}
