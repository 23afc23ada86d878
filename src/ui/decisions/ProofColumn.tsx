"use client";
import { Button, chakra } from "@chakra-ui/react";
import { isFaultyOverlap, sheets, shownValue, tableOf } from "@/core/decisions";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";
import { useTrying } from "./tryStore";
import type { Findings } from "./useFindings";

const words = text.decisions;

/** What a table leaves out, says twice, and could say shorter: each with an example that can be tried, and what mends it. */
export function ProofColumn({ id, findings }: { readonly id: string; readonly findings: Findings | undefined }) {
  const { document, edit } = useDecisions();
  const type = useTrying((state) => state.type);
  const table = document ? tableOf(document.root, id) : undefined;
  const proof = findings?.proof;
  if (!table || !proof) return <chakra.p color="quiet">{words.proving}</chakra.p>;
  const tryExample = (example: { readonly [input: string]: unknown }) => {
    for (const [input, value] of Object.entries(example))
      type(input, typeof value === "string" ? value : shownValue(value));
  };
  const exampleOf = (example: { readonly [input: string]: unknown }) => (
    <chakra.button
      type="button"
      color="accent"
      textAlign="left"
      cursor="pointer"
      title={words.tryHint}
      onClick={() => tryExample(example)}
    >
      {Object.entries(example)
        .map(([input, value]) => `${input} ${shownValue(value)}`)
        .join(", ")}
    </chakra.button>
  );
  const overlaps = proof.overlaps.filter(({ conflict }) => isFaultyOverlap(table.hitPolicy, conflict));
  const { missing, joined } = findings;
  const close = () =>
    missing &&
    edit(words.editing.close, {
      type: "table",
      id,
      sheet: {
        ...table,
        rules: [...table.rules, ...missing.rules.map((inputs) => ({ ...sheets.emptyRule(table), inputs }))],
      },
    });
  const join = () =>
    joined &&
    edit(words.editing.join, {
      type: "table",
      id,
      sheet: {
        ...table,
        rules: joined.rules.flatMap(({ of, inputs }) => {
          const first = table.rules[(of[0] ?? 1) - 1];
          return first ? [inputs ? { ...first, inputs } : first] : [];
        }),
      },
    });
  return (
    <chakra.ul listStyleType="none" display="flex" flexDirection="column" gap={2} aria-live="polite">
      {proof.problems.map((problem) => (
        <li key={problem}>{problem}</li>
      ))}
      {proof.complete && (
        <chakra.li color="good">
          <span aria-hidden="true">✓ </span>
          {words.complete}
        </chakra.li>
      )}
      {proof.gaps.length > 0 && (
        <li>
          <chakra.p fontWeight="600" color="trouble">
            {words.gaps(proof.gaps.length)}
          </chakra.p>
          <chakra.ul listStyleType="none">
            {proof.gaps.slice(0, 5).map(({ when, example }) => (
              <li key={when}>
                {words.gap(when)} {exampleOf(example)}
              </li>
            ))}
          </chakra.ul>
          {missing && (
            <>
              <chakra.p color="quiet">{words.closes(missing.rules.length, missing.isFewest)}</chakra.p>
              <Button size="xs" mt={1} bg="accent" color="onAccent" onClick={close}>
                {words.close(missing.rules.length)}
              </Button>
            </>
          )}
        </li>
      )}
      {overlaps.slice(0, 6).map(({ rules: [one, other], conflict, example }) => (
        <li key={`${one} ${other}`}>
          <chakra.span color="trouble" fontWeight="600">
            {words.overlap(one, other)}
          </chakra.span>{" "}
          {exampleOf(example)} {conflict ? words.conflict : words.agree}.
        </li>
      ))}
      {proof.hidden.map((at) => (
        <chakra.li key={at} color="attention">
          {words.hidden(at)}
        </chakra.li>
      ))}
      {joined && (
        <li>
          {words.joins(table.rules.length, joined.rules.length)}{" "}
          <chakra.span color="quiet">
            {joined.rules
              .flatMap(({ of, inputs }) =>
                inputs ? [`${of.join(" + ")}: ${inputs.map((cell) => sheets.shownCell(cell)).join(", ")}`] : [],
              )
              .join("; ")}
          </chakra.span>{" "}
          <Button size="xs" variant="outline" onClick={join}>
            {words.join}
          </Button>
        </li>
      )}
    </chakra.ul>
  );
}
