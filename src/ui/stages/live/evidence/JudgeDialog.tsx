"use client";
import { Button, chakra } from "@chakra-ui/react";
import { useState } from "react";
import type { Judgement } from "@/contract/evidence";
import { DialogFrame } from "../../../controls/DialogFrame";
import { wordsOf } from "../../../kernel/wordsOf";
import { text } from "../../../messages";

const words = text.evidence.differences;

/** Asks for a note on a difference that stays; there need not be one. */
export function JudgeDialog(props: {
  readonly as: Judgement;
  readonly onJudge: (note: string) => Promise<void>;
  readonly onClose: () => void;
}) {
  const { as, onJudge, onClose } = props;
  const [note, setNote] = useState("");
  const [problem, setProblem] = useState("");
  const judge = async () => {
    try {
      await onJudge(note.trim());
      onClose();
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <DialogFrame
      title={words.judge(words.judgedAs[as])}
      width="440px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" onClick={() => void judge()}>
            {words[as]}
          </Button>
        </>
      }
    >
      <chakra.p color="quiet" mb={3}>
        {words.judgeExplain}
      </chakra.p>
      <chakra.label fontSize="12px" color="quiet">
        {words.note}
        <chakra.textarea
          rows={3}
          w="100%"
          px={2}
          py={1}
          color="ink"
          fontSize="13px"
          bg="paper"
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </chakra.label>
      {problem !== "" && (
        <chakra.p color="trouble" role="alert">
          {problem}
        </chakra.p>
      )}
    </DialogFrame>
  );
}
