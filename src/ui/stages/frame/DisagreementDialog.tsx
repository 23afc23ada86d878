"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { checkModel, keyOf as keyOfFinding } from "@/core/check";
import { type Decision, type MergeConflict, mergeModels } from "@/core/merge";
import type { Model } from "@/core/model";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";
import { ConflictChoice } from "../../version/ConflictChoice";
import { useVersion, useVersionStore } from "../../version/VersionContext";

const keyOf = ({ element, field }: { readonly element: string; readonly field: string }) => `${element} ${field}`;

/** What two people changed differently, side by side, each to be decided or written anew; nothing is saved before. */
export function DisagreementDialog() {
  const store = useVersionStore();
  const disagreement = useVersion((state) => state.disagreement);
  const [decisions, setDecisions] = useState<ReadonlyMap<string, Decision>>(new Map());
  const decide = useMemo(
    () =>
      (conflict: MergeConflict): Decision =>
        decisions.get(keyOf(conflict)) ?? "ours",
    [decisions],
  );
  const errors = useMemo(() => {
    if (!disagreement) return [];
    const { common, ours, theirs } = disagreement;
    return newErrors(mergeModels(common, ours, theirs, { decide }).model, [ours, theirs]);
  }, [disagreement, decide]);
  if (!disagreement) return null;
  const choose = (key: string, decision: Decision) => setDecisions(new Map(decisions).set(key, decision));
  return (
    <DialogFrame
      title={text.saved.disagree}
      width="860px"
      isAlert
      footer={
        <Button bg="accent" color="onAccent" onClick={() => store.getState().decide(decide)}>
          {text.saved.takeDecided}
        </Button>
      }
    >
      <chakra.p mb={4}>{text.saved.disagreeWhy}</chakra.p>
      {disagreement.conflicts.map((conflict) => (
        <ConflictChoice
          key={keyOf(conflict)}
          conflict={conflict}
          sides={text.saved.sides}
          decision={decide(conflict)}
          onDecide={(decision) => choose(keyOf(conflict), decision)}
        />
      ))}
      {errors.length > 0 && (
        <Box role="status" mt={3} color="trouble">
          {text.saved.wouldBeWrong(errors.length)}
          <chakra.ul ps={5}>
            {errors.slice(0, 5).map((message) => (
              <li key={message}>{message}</li>
            ))}
          </chakra.ul>
        </Box>
      )}
    </DialogFrame>
  );
}

/** Errors the outcome would have that neither side has: behaviour aside, which takes longer than a decision. */
function newErrors(merged: Model, sides: readonly Model[]): string[] {
  const errorsOf = (model: Model) => checkModel(model, { part: "rest" }).filter(({ severity }) => severity === "error");
  const known = new Set(sides.flatMap((side) => errorsOf(side).map(keyOfFinding)));
  return errorsOf(merged)
    .filter((finding) => !known.has(keyOfFinding(finding)))
    .map(({ message }) => message);
}
