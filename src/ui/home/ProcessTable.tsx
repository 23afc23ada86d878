"use client";
import { Button, chakra, Flex, Table } from "@chakra-ui/react";
import { ArrowDown, ArrowDownUp } from "lucide-react";
import { type ReactNode, useState } from "react";
import { type HomeArea, type HomeData, type HomeOrder, type HomeProcess, homePage } from "@/contract/home";
import { text } from "../messages";
import { ProcessRows } from "./ProcessRows";

interface ProcessTableProps {
  readonly data: HomeData;
  readonly order: HomeOrder;
  readonly onOrder: (order: HomeOrder) => void;
  readonly from: number;
  readonly onFrom: (from: number) => void;
  readonly onRename: (process: HomeProcess) => void;
  readonly onCopy: (process: HomeProcess) => void;
  readonly onMove: (process: HomeProcess, into: HomeArea) => void;
  readonly onDelete: (process: HomeProcess) => void;
}

/** A page of processes as a table, ordered by its heads. */
export function ProcessTable({ data, order, onOrder, from, onFrom, ...acts }: ProcessTableProps) {
  const [expanded, setExpanded] = useState<string | null>(null);
  const head = (by: HomeOrder, words: string) => (
    <OrderHead isChosen={order === by} onChoose={() => onOrder(order === by ? "own" : by)}>
      {words}
    </OrderHead>
  );
  return (
    <>
      <Table.Root size="sm" bg="paper" borderWidth="1px" borderColor="line" tableLayout="fixed">
        <Table.Header>
          <Table.Row bg="sheet">
            <Table.ColumnHeader color="quiet" w="30%" aria-sort={order === "name" ? "ascending" : undefined}>
              {head("name", text.home.process)}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="24%">
              {text.home.versions}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="24%" aria-sort={order === "findings" ? "descending" : undefined}>
              {head("findings", text.home.stages)}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="16%" aria-sort={order === "changed" ? "descending" : undefined}>
              {head("changed", text.home.changed)}
            </Table.ColumnHeader>
            <Table.ColumnHeader w="52px">
              <chakra.span srOnly>{text.home.move}</chakra.span>
            </Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {data.processes.map((process) => (
            <ProcessRows
              key={process.id}
              process={process}
              versions={data.versions.filter((version) => version.process === process.id)}
              areas={data.areas}
              expanded={expanded === process.id}
              onExpand={() => setExpanded(expanded === process.id ? null : process.id)}
              onRename={() => acts.onRename(process)}
              onCopy={() => acts.onCopy(process)}
              onMove={(into) => acts.onMove(process, into)}
              onDelete={() => acts.onDelete(process)}
            />
          ))}
        </Table.Body>
      </Table.Root>
      {data.total > homePage && (
        <Flex gap={2} mt={3} align="center" color="quiet">
          <span role="status">{text.home.shown(from + 1, from + data.processes.length, data.total)}</span>
          <Button
            size="xs"
            variant="outline"
            disabled={from === 0}
            onClick={() => onFrom(Math.max(0, from - homePage))}
          >
            {text.home.earlier}
          </Button>
          <Button
            size="xs"
            variant="outline"
            disabled={from + homePage >= data.total}
            onClick={() => onFrom(from + homePage)}
          >
            {text.home.later}
          </Button>
        </Flex>
      )}
    </>
  );
}

/** A head of a column that orders the table. */
function OrderHead({
  isChosen,
  onChoose,
  children,
}: {
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly children: ReactNode;
}) {
  return (
    <chakra.button
      type="button"
      display="inline-flex"
      alignItems="center"
      gap={1}
      cursor="pointer"
      fontWeight={isChosen ? "700" : "inherit"}
      color={isChosen ? "accent" : "inherit"}
      title={text.home.orderBy}
      onClick={onChoose}
    >
      {children}
      {isChosen ? (
        <ArrowDown size={13} aria-hidden />
      ) : (
        <ArrowDownUp size={11} color="var(--chakra-colors-pencil)" aria-hidden />
      )}
    </chakra.button>
  );
}
