"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useId } from "react";
import type { Decision, MergeConflict } from "@/core/merge";
import { text } from "../messages";

const said = (value: unknown) =>
  value === null || value === "" ? text.tray.none : typeof value === "string" ? value : JSON.stringify(value);

/** What two sides changed differently: one of the two, or a text of one's own, is to hold. */
export function ConflictChoice(props: {
  readonly conflict: MergeConflict;
  /** What the two sides are called. */
  readonly sides: { readonly ours: string; readonly theirs: string };
  readonly decision: Decision | undefined;
  readonly onDecide: (decision: Decision) => void;
}) {
  const { conflict, sides, decision, onDecide } = props;
  const name = useId();
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
            <input type="radio" name={name} checked={decision === side} onChange={() => onDecide(side)} />
            <chakra.span color="quiet">{sides[side]}</chakra.span>
            <chakra.span wordBreak="break-word">{said(conflict[side])}</chakra.span>
          </chakra.label>
        ))}
      </Box>
      {conflict.isText && (
        <chakra.label display="flex" gap={2} alignItems="center" mt={1.5}>
          <input
            type="radio"
            name={name}
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
