"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { live } from "@/contract";
import type { WrittenRow } from "@/contract/live";
import { writeTable } from "@/core/table";
import { Choice } from "../../controls/fields";
import { clockWords } from "../../controls/moment";
import { EmptyState } from "../../controls/states";
import { giveFile } from "../../kernel/ask";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";

const words = text.live.written;
const atATime = 50;
const mostAtOnce = 200;

/** The tables of the databases that are stood in for: what steps have written into each. */
export function Written(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly onOpen: (number: number) => void;
}) {
  const { at, onOpen } = props;
  const [chosen, setChosen] = useState<string>();
  const [count, setCount] = useState(atATime);
  const { data } = useAsked(live.listWritten, { ...at, store: chosen, count }, { keepsLast: true });
  if (!data) return <EmptyState>{text.shell.loading}</EmptyState>;
  const store = chosen ?? data.stores[0];
  if (store === undefined)
    return (
      <Flex direction="column" p={4}>
        <EmptyState>{words.none}</EmptyState>
      </Flex>
    );
  const columns = [...new Set(data.rows.flatMap(({ data: values }) => Object.keys(values)))];
  const csv = () =>
    writeTable([
      [text.live.table.number, words.when, words.step, ...columns],
      ...data.rows.map((row) => [
        String(row.number),
        new Date(row.at).toISOString(),
        row.step,
        ...columns.map((column) => shown(row.data[column])),
      ]),
    ]);
  return (
    <Flex direction="column" p={4} gap={3}>
      <chakra.p color="quiet">{words.explain}</chakra.p>
      <Flex gap={3} align="center">
        <Choice
          label={words.store}
          value={store}
          options={data.stores.map((one) => [one, one] as const)}
          onChoose={setChosen}
        />
        <chakra.button
          type="button"
          color="accent"
          fontSize="12px"
          cursor="pointer"
          onClick={() => giveFile(new Blob([`\uFEFF${csv()}`], { type: "text/csv" }), `${store}.csv`)}
        >
          {text.panel.csv}
        </chakra.button>
      </Flex>
      {data.rows.length === 0 ? (
        <EmptyState>{words.empty}</EmptyState>
      ) : (
        <chakra.div overflow="auto" tabIndex={0}>
          <chakra.table
            w="100%"
            bg="paper"
            fontSize="13px"
            borderCollapse="collapse"
            data-testid="written"
            css={{ "& th, & td": { textAlign: "left", padding: "4px 8px", verticalAlign: "top" } }}
          >
            <thead>
              <chakra.tr color="quiet" fontSize="12px">
                {[text.live.table.number, words.when, words.step, ...columns].map((head) => (
                  <th key={head} scope="col">
                    {head}
                  </th>
                ))}
              </chakra.tr>
            </thead>
            <tbody>
              {data.rows.map((row) => (
                <RowOf key={`${row.number} ${row.at} ${row.step}`} row={row} columns={columns} onOpen={onOpen} />
              ))}
            </tbody>
          </chakra.table>
        </chakra.div>
      )}
      {data.total > data.rows.length && count < mostAtOnce && (
        <Button size="xs" variant="outline" alignSelf="start" onClick={() => setCount(count + atATime)}>
          {words.more}
        </Button>
      )}
    </Flex>
  );
}

function RowOf(props: {
  readonly row: WrittenRow;
  readonly columns: readonly string[];
  readonly onOpen: (number: number) => void;
}) {
  const { row, columns, onOpen } = props;
  return (
    <chakra.tr borderTopWidth="1px" borderColor="line">
      <td>
        <chakra.button type="button" color="accent" cursor="pointer" onClick={() => onOpen(row.number)}>
          {text.live.table.open(row.number)}
        </chakra.button>
      </td>
      <chakra.td whiteSpace="nowrap">{clockWords(row.at, "UTC")}</chakra.td>
      <td>{row.step}</td>
      {columns.map((column) => (
        <td key={column}>{shown(row.data[column])}</td>
      ))}
    </chakra.tr>
  );
}

const shown = (value: unknown): string =>
  typeof value === "boolean"
    ? value
      ? text.forms.yes
      : text.forms.no
    : value === undefined || value === null
      ? ""
      : typeof value === "object"
        ? JSON.stringify(value)
        : String(value);
