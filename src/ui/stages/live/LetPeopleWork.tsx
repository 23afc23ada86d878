"use client";
import { live } from "@/contract";
import { AskDialog } from "../../controls/AskDialog";
import { tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { lookAgain } from "../../kernel/queries";
import { text } from "../../messages";

const words = text.live;

/** Simulated members work some days up to now. */
export function LetPeopleWork(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly onClose: () => void;
}) {
  const { at, onClose } = props;
  return (
    <AskDialog
      title={words.staffTitle}
      explain={words.staffExplain}
      label={words.staffDays}
      start="30"
      besides={{ label: words.staffMost, hint: "200", start: "200" }}
      action={words.staff}
      onClose={onClose}
      onAnswer={async (days, most) => {
        const { cases } = await ask(live.runStaff, { ...at, days: Number(days), most: Number(most || "200") });
        await lookAgain([{ kind: "version", id: at.version }]);
        tell({ description: words.staffDone(cases) });
      }}
    />
  );
}
