"use client";
import { chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";

/** A table of what a log holds: a heading, and a bar where a column is a share of the largest. */
export function LogTable(props: {
  readonly title: string;
  readonly head: readonly string[];
  readonly rows: readonly {
    readonly key: string;
    readonly cells: readonly ReactNode[];
    /** 0 to 1: drawn behind the first cell. */
    readonly share?: number;
  }[];
  readonly width?: string;
}) {
  const { title, head, rows, width } = props;
  return (
    <chakra.section minW={width ?? "320px"} flex="1" aria-label={title}>
      <chakra.h2 fontSize="13px" fontWeight="700" mb={1}>
        {title}
      </chakra.h2>
      <chakra.table w="100%" fontSize="13px" style={{ borderCollapse: "collapse" }}>
        <thead>
          <tr>
            {head.map((word, at) =>
              word === "" ? (
                // What needs no name: it says what it is.
                <td key={`column ${at + 1}`} />
              ) : (
                <chakra.th
                  key={word}
                  scope="col"
                  textAlign={at === 0 ? "start" : "end"}
                  fontWeight="400"
                  color="quiet"
                  fontSize="12px"
                  py={0.5}
                  px={1}
                >
                  {word}
                </chakra.th>
              ),
            )}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, cells, share }) => (
            <chakra.tr key={key} borderTopWidth="1px" borderColor="line">
              {cells.map((cell, at) => (
                <chakra.td
                  key={at}
                  textAlign={at === 0 ? "start" : "end"}
                  whiteSpace={at === 0 ? "normal" : "nowrap"}
                  py={0.5}
                  px={1}
                  position="relative"
                >
                  {at === 0 && share !== undefined && (
                    <chakra.span
                      position="absolute"
                      insetBlock="2px"
                      insetInlineStart={0}
                      bg="accentSoft"
                      borderRadius="2px"
                      style={{ width: `${share * 100}%` }}
                      aria-hidden="true"
                    />
                  )}
                  <Flex as="span" position="relative" display={at === 0 ? "flex" : "inline"} gap={2}>
                    {cell}
                  </Flex>
                </chakra.td>
              ))}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </chakra.section>
  );
}

/** A name in a table that narrows down to what it names. */
export function Narrowing(props: {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      title={props.label}
      aria-label={props.label}
      textAlign="start"
      minH="24px"
      minW="24px"
      cursor="pointer"
      textDecoration="underline"
      textDecorationColor="line"
      _hover={{ color: "accent" }}
      onClick={props.onClick}
    >
      {props.children}
    </chakra.button>
  );
}
