"use client";
import { Box, Button, chakra } from "@chakra-ui/react";
import { useMemo, useState } from "react";
import { checkModel, keyOf as keyOfFinding } from "@/core/check";
import { type Decision, type MergeConflict, mergeModels } from "@/core/merge";
import type { Model } from "@/core/model";
import { DialogFrame } from "../../controls/DialogFrame";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

const keyOf = ({ element, field }: { readonly element: string; readonly field: string }) => `${element} ${field}`;
const said = (value: unknown) =>
  value === null || value === "" ? text.tray.none : typeof value === "string" ? value : JSON.stringify(value);

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
        <Conflict
          key={keyOf(conflict)}
          conflict={conflict}
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

function Conflict({
  conflict,
  decision,
  onDecide,
}: {
  readonly conflict: MergeConflict;
  readonly decision: Decision;
  readonly onDecide: (decision: Decision) => void;
}) {
  const own = typeof decision === "object" ? decision.text : undefined;
  return (
    <chakra.fieldset borderTopWidth="1px" borderColor="line" py={2}>
      <chakra.legend fontWeight="700">
        {conflict.name}: {text.saved.fieldOf(conflict.field)}
      </chakra.legend>
      <Box display="grid" gridTemplateColumns="1fr 1fr" gap={3}>
        {(["ours", "theirs"] as const).map((side) => (
          <chakra.label
            key={side}
            display="flex"
            gap={2}
            alignItems="baseline"
            px={2}
            py={1}
            borderWidth="1px"
            borderColor={decision === side ? "accent" : "line"}
            borderRadius="6px"
            cursor="pointer"
          >
            <input type="radio" name={keyOf(conflict)} checked={decision === side} onChange={() => onDecide(side)} />
            <chakra.span color="quiet">{side === "ours" ? text.saved.mine : text.saved.theirs}</chakra.span>
            <chakra.span wordBreak="break-word">{said(conflict[side])}</chakra.span>
          </chakra.label>
        ))}
      </Box>
      {conflict.isText && (
        <chakra.label display="flex" gap={2} alignItems="center" mt={1.5}>
          <input
            type="radio"
            name={keyOf(conflict)}
            aria-label={text.saved.write}
            checked={own !== undefined}
            onChange={() => onDecide({ text: String(conflict.ours ?? "") })}
          />
          <chakra.span color="quiet" flexShrink={0}>
            {text.saved.write}
          </chakra.span>
          <chakra.input
            aria-label={text.saved.ownText}
            value={own ?? ""}
            placeholder={text.saved.ownText}
            onChange={(event) => onDecide({ text: event.target.value })}
            flex="1"
            h="28px"
            px={2}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
          />
        </chakra.label>
      )}
    </chakra.fieldset>
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
