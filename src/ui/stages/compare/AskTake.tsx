"use client";
import { Button, chakra } from "@chakra-ui/react";
import { useRef } from "react";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";

/** Another version than the open one would be changed: which, and by what; Enter does it. */
export function AskTake(props: {
  readonly title: string;
  readonly words: readonly string[];
  readonly onTake: () => void;
  readonly onClose: () => void;
}) {
  const { title, words, onTake, onClose } = props;
  const take = useRef<HTMLButtonElement>(null);
  return (
    <DialogFrame
      title={text.compare.askTake(title)}
      width="520px"
      onClose={onClose}
      first={take}
      footer={
        <>
          <Button variant="ghost" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" ref={take} onClick={onTake}>
            {text.compare.takeInto(title)}
          </Button>
        </>
      }
    >
      <chakra.p mb={2}>{text.compare.askTakeExplain(title)}</chakra.p>
      <chakra.ul ps={5}>
        {words.slice(0, 8).map((one) => (
          <li key={one}>{one}</li>
        ))}
      </chakra.ul>
      {words.length > 8 && <chakra.p color="quiet">{text.walk.more(words.length - 8)}</chakra.p>}
    </DialogFrame>
  );
}
