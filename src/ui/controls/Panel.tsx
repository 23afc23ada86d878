"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { createContext, type ReactNode, useContext, useRef, useState } from "react";
import { writeTable } from "@/core/table";
import { giveFile } from "../kernel/ask";
import { text } from "../messages";
import { pictureOf } from "./Chart";

/** What stands beside the title of each panel of a stage. */
export const BesideTitle = createContext<((title: string) => ReactNode) | undefined>(undefined);

export interface PanelTable {
  readonly head: readonly string[];
  readonly rows: readonly (readonly (string | number)[])[];
}

const fileName = (title: string) => title.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase();

function save({ head, rows }: PanelTable, title: string): void {
  const csv = writeTable([head, ...rows].map((row) => row.map(String)));
  giveFile(new Blob([`\uFEFF${csv}`], { type: "text/csv" }), `${fileName(title)}.csv`);
}

function savePicture(place: HTMLElement | null, title: string): void {
  const svg = place ? pictureOf(place) : undefined;
  if (svg) giveFile(new Blob([svg], { type: "image/svg+xml" }), `${fileName(title)}.svg`);
}

/** A picture with its title, its unit, and the table of what it shows. */
export function Panel(props: {
  readonly title: string;
  readonly unit?: string;
  readonly table?: PanelTable;
  /** Whether it is drawn as a picture that can be taken away. */
  readonly isPicture?: boolean;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}) {
  const { title, unit, table, isPicture = false, aside, children } = props;
  const beside = useContext(BesideTitle);
  const [isTable, setTable] = useState(false);
  const body = useRef<HTMLDivElement>(null);
  return (
    <Flex
      as="section"
      aria-label={title}
      direction="column"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      minW={0}
      minH={0}
      overflow="hidden"
    >
      <Flex px={3.5} pt={2.5} pb={1} gap={2} align="baseline">
        <chakra.h2 fontSize="14px" fontWeight="700" flex="1" truncate>
          {title}
        </chakra.h2>
        {aside}
        {beside?.(title)}
        {unit && !isTable && (
          <chakra.span fontSize="12px" color="quiet" whiteSpace="nowrap">
            {unit}
          </chakra.span>
        )}
        {table && (
          <>
            <Quiet onClick={() => setTable(!isTable)} pressed={isTable}>
              {isTable ? text.panel.picture : text.panel.table}
            </Quiet>
            <Quiet onClick={() => save(table, title)}>{text.panel.csv}</Quiet>
            {isPicture && !isTable && <Quiet onClick={() => savePicture(body.current, title)}>{text.panel.svg}</Quiet>}
          </>
        )}
      </Flex>
      <Box ref={body} flex="1" minH={0} overflow="auto" px={3.5} pb={3} tabIndex={0}>
        {isTable && table ? <Table {...table} /> : children}
      </Box>
    </Flex>
  );
}

function Quiet(props: { readonly onClick: () => void; readonly pressed?: boolean; readonly children: ReactNode }) {
  return (
    <chakra.button
      type="button"
      fontSize="12px"
      color="accent"
      cursor="pointer"
      aria-pressed={props.pressed}
      _hover={{ textDecoration: "underline" }}
      onClick={props.onClick}
    >
      {props.children}
    </chakra.button>
  );
}

function Table({ head, rows }: PanelTable) {
  return (
    <chakra.table w="100%" fontSize="12px" css={{ "& th, & td": { padding: "2px 8px 2px 0", textAlign: "start" } }}>
      <thead>
        <tr>
          {head.map((words) => (
            <chakra.th key={words} scope="col" color="quiet" fontWeight="600">
              {words}
            </chakra.th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.join("|")}>
            {row.map((words, at) => (
              <chakra.td key={head[at] ?? at} borderTopWidth="1px" borderColor="line">
                {words}
              </chakra.td>
            ))}
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}
