"use client";
import { Button, chakra, Flex, Table } from "@chakra-ui/react";
import { ArrowDown, ArrowDownUp } from "lucide-react";
import { Fragment, type ReactNode, useState } from "react";
import { type HomeData, type HomeGroup, type HomeOrder, type HomeProcess, homePage } from "@/contract/home";
import { text } from "../messages";
import type { ProcessActs } from "./ProcessMenu";
import { ProcessRows } from "./ProcessRows";

interface ProcessTableProps {
  readonly data: HomeData;
  readonly order: HomeOrder;
  readonly onOrder: (order: HomeOrder) => void;
  readonly from: number;
  readonly onFrom: (from: number) => void;
  readonly group: HomeGroup;
  readonly acts: ProcessActs;
}

/** A page of processes as a table, ordered by its heads. */
export function ProcessTable({ data, order, onOrder, from, onFrom, group, acts }: ProcessTableProps) {
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
            <Table.ColumnHeader color="quiet" w="24%" aria-sort={order === "name" ? "ascending" : undefined}>
              {head("name", text.home.process)}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="17%">
              {text.home.versions}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="270px">
              {text.home.stages}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" aria-sort={order === "findings" ? "descending" : undefined}>
              {head("findings", text.home.matters)}
            </Table.ColumnHeader>
            <Table.ColumnHeader color="quiet" w="130px" aria-sort={order === "changed" ? "descending" : undefined}>
              {head("changed", text.home.changed)}
            </Table.ColumnHeader>
            <Table.ColumnHeader w="52px">
              <chakra.span srOnly>{text.home.move}</chakra.span>
            </Table.ColumnHeader>
          </Table.Row>
        </Table.Header>
        <Table.Body>
          {data.processes.map((process, at) => {
            const heading = headingOf(process, group, data);
            const before = data.processes[at - 1];
            return (
              <Fragment key={process.id}>
                {heading !== undefined && (!before || headingOf(before, group, data) !== heading) && (
                  <Table.Row bg="ground">
                    <Table.Cell colSpan={6} fontWeight="700" asChild>
                      <th scope="rowgroup">{heading}</th>
                    </Table.Cell>
                  </Table.Row>
                )}
                <ProcessRows
                  process={process}
                  versions={data.versions.filter((version) => version.process === process.id)}
                  areas={data.areas}
                  acts={acts}
                  expanded={expanded === process.id}
                  onExpand={() => setExpanded(expanded === process.id ? null : process.id)}
                />
              </Fragment>
            );
          })}
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

/** What the group of a process is called; none where the table has no groups. */
function headingOf(process: HomeProcess, group: HomeGroup, data: HomeData): string | undefined {
  if (group === "none") return undefined;
  if (group === "need") return text.home.needGroups[process.need];
  return data.areas.find(({ id }) => id === process.area)?.name ?? "";
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
