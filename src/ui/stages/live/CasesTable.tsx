"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { CaseRow } from "@/contract/live";
import { BarChoice } from "../../controls/BarChoice";
import { clockWords } from "../../controls/moment";
import { SeekField } from "../../controls/SeekField";
import { EmptyState } from "../../controls/states";
import { timeWords } from "../../controls/units";
import { useAsked } from "../../kernel/queries";
import { useRested } from "../../kernel/useRested";
import { text } from "../../messages";

const words = text.live.table;
const states = ["all", "open", "over", "incident"] as const;
const atATime = 50;

/** The cases of a run, the newest first, found by number or by a word of their data. */
export function CasesTable(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly now: number;
  readonly opened: number | undefined;
  readonly onOpen: (number: number) => void;
}) {
  const { at, now, opened, onOpen } = props;
  const [state, setState] = useState<(typeof states)[number]>("all");
  const [typed, setTyped] = useState("");
  const [count, setCount] = useState(atATime);
  const sought = useRested(typed, 200);
  const { data } = useAsked(
    live.listCases,
    { ...at, state, text: sought, count: Math.min(200, count) },
    { keepsLast: true },
  );
  const cases = data?.cases ?? [];
  return (
    <Flex direction="column" gap={3} p={4}>
      <Flex gap={3} align="center">
        <BarChoice
          label={words.show}
          value={state}
          options={states.map((one) => [one, words.states[one]] as const)}
          onChange={(one) => setState(one as typeof state)}
        />
        <SeekField label={words.filter} value={typed} onType={setTyped} />
      </Flex>
      {data && cases.length === 0 ? (
        <EmptyState>{state === "all" && typed === "" ? words.empty : words.noneSuch}</EmptyState>
      ) : (
        <chakra.table
          w="100%"
          borderCollapse="collapse"
          bg="paper"
          fontSize="13px"
          data-testid="live-cases"
          css={{ "& th, & td": { textAlign: "left", padding: "4px 8px" } }}
        >
          <thead>
            <chakra.tr color="quiet" fontSize="12px">
              <th>{words.number}</th>
              <th>{words.state}</th>
              <th>{words.at}</th>
              <th>{words.began}</th>
              <th>{words.took}</th>
            </chakra.tr>
          </thead>
          <tbody>
            {cases.map((row) => (
              <CaseLine key={row.number} row={row} now={now} isOpened={row.number === opened} onOpen={onOpen} />
            ))}
          </tbody>
        </chakra.table>
      )}
      {data && data.total > cases.length && count < 200 && (
        <Button size="xs" variant="outline" alignSelf="start" onClick={() => setCount(count + atATime)}>
          {words.more}
        </Button>
      )}
    </Flex>
  );
}

function CaseLine(props: {
  readonly row: CaseRow;
  readonly now: number;
  readonly isOpened: boolean;
  readonly onOpen: (number: number) => void;
}) {
  const { row, now, isOpened, onOpen } = props;
  const { number, edition, state, isSuspended, began, ended, at, incidents } = row;
  return (
    <chakra.tr borderTopWidth="1px" borderColor="line" bg={isOpened ? "accentSoft" : undefined}>
      <td>
        <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onOpen(number)}>
          {words.open(number)}
        </chakra.button>
        {edition > 1 && (
          <chakra.span color="quiet" fontSize="12px" ms={2}>
            {text.live.package(edition)}
          </chakra.span>
        )}
      </td>
      <chakra.td color={incidents > 0 || state === "failed" ? "trouble" : undefined}>
        {isSuspended ? text.live.suspended : text.live.states[state]}
      </chakra.td>
      <td>{at.join(", ")}</td>
      <chakra.td whiteSpace="nowrap">{clockWords(began, "UTC")}</chakra.td>
      <td>{timeWords(Math.max(0, (ended ?? now) - began) / 1000)}</td>
    </chakra.tr>
  );
}
