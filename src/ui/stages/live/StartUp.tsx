"use client";
import { nanoid } from "nanoid";
import { useState } from "react";
import { live } from "@/contract";
import { AskDialog } from "../../controls/AskDialog";
import { ask } from "../../kernel/ask";
import { lookAgain } from "../../kernel/queries";
import { text } from "../../messages";
import { PaceChoice } from "./PaceChoice";

const words = text.live;

/** Starts up what was handed off, under a name. */
export function StartUp(props: {
  readonly version: string;
  readonly onStarted: (run: string) => void;
  readonly onClose: () => void;
}) {
  const { version, onStarted, onClose } = props;
  const [run] = useState(() => nanoid(12));
  const [pace, setPace] = useState("1");
  return (
    <AskDialog
      title={words.startTitle}
      explain={words.startExplain}
      label={words.runName}
      start={words.usualName}
      action={words.start}
      onClose={onClose}
      onAnswer={async (name) => {
        await ask(live.startRun, { version, run, name, pace: Number(pace) });
        await lookAgain([{ kind: "version", id: version }]);
        onStarted(run);
      }}
    >
      <PaceChoice value={pace} onChange={setPace} />
    </AskDialog>
  );
}
