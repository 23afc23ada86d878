"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { LeftOut, LogColumn, SaidOfTable } from "@/core/evidence";
import type { ReadFile } from "@/jobs";
import { text, worded } from "../../../messages";

const words = text.evidence.importing;
/** What may be wrong with a row. */
const columns: readonly LogColumn[] = ["case", "activity", "began", "at"];
/** So many rows are offered at once; the next ones follow when these are read. */
const mostOffered = 10;

/** Rows that cannot be used, to be corrected by hand: the file is read again with them, and stays as it is. */
export function CorrectRows(props: {
  readonly table: NonNullable<ReadFile["table"]>;
  readonly leftOut: readonly LeftOut[];
  readonly said: SaidOfTable;
  readonly onSay: (said: SaidOfTable) => void;
}) {
  const { table, leftOut, said, onSay } = props;
  const [isOpen, setOpen] = useState(false);
  const [typed, setTyped] = useState<{ readonly [line: number]: readonly string[] }>({});
  const taken = said.columns ?? table.columns;
  const places = columns.flatMap((column) => (taken[column] === undefined ? [] : [[column, taken[column]] as const]));
  const rows = leftOut.filter(({ cells }) => cells).slice(0, mostOffered);
  const change = (line: number, cells: readonly string[], place: number, value: string) =>
    setTyped({
      ...typed,
      [line]: Array.from({ length: Math.max(cells.length, place + 1) }, (_, at) =>
        at === place ? value : (cells[at] ?? ""),
      ),
    });
  const count = Object.keys(typed).length;
  const { corrected, ...asItIs } = said;
  const isCorrected = corrected !== undefined && Object.keys(corrected).length > 0;
  if (rows.length === 0 && !isCorrected) return null;
  return (
    <Flex direction="column" gap={2} data-testid="correct-rows">
      <Flex gap={2}>
        {rows.length > 0 && (
          <Button size="xs" variant="outline" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
            {words.correct}
          </Button>
        )}
        {isCorrected && (
          <Button size="xs" variant="outline" onClick={() => onSay(asItIs)}>
            {words.undoCorrections}
          </Button>
        )}
      </Flex>
      {isOpen && rows.length > 0 && (
        <>
          <chakra.p color="quiet" fontSize="12px">
            {words.correctExplain}
          </chakra.p>
          <chakra.div overflow="auto" maxH="200px">
            <chakra.table fontSize="12px" css={{ "& th, & td": { padding: "2px 6px 2px 0", textAlign: "start" } }}>
              <thead>
                <tr>
                  <td />
                  {places.map(([column]) => (
                    <chakra.th key={column} scope="col" color="quiet" fontWeight="600">
                      {words.column[column]}
                    </chakra.th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map(({ line, why, cells = [] }) => (
                  <tr key={line}>
                    <chakra.th scope="row" fontWeight="400" color="trouble" whiteSpace="nowrap">
                      {words.line(line, worded(why))}
                    </chakra.th>
                    {places.map(([column, place]) => (
                      <td key={column}>
                        <chakra.input
                          aria-label={words.cell(line, words.column[column])}
                          title={words.column[column]}
                          value={(typed[line] ?? cells)[place] ?? ""}
                          h="26px"
                          w="130px"
                          px={2}
                          bg="paper"
                          borderWidth="1px"
                          borderColor="line"
                          borderRadius="6px"
                          onChange={(event) => change(line, typed[line] ?? cells, place, event.target.value)}
                        />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </chakra.table>
          </chakra.div>
          <chakra.div>
            <Button
              size="xs"
              variant="outline"
              disabled={count === 0}
              onClick={() => onSay({ ...said, corrected: { ...corrected, ...typed } })}
            >
              {words.readAgain(count)}
            </Button>
          </chakra.div>
        </>
      )}
    </Flex>
  );
}
