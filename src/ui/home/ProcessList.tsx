"use client";
import { Box, chakra, Flex, Input } from "@chakra-ui/react";
import { useState } from "react";
import { home } from "@/contract";
import { type HomeGroup, type HomeOrder, homeGroups } from "@/contract/home";
import { Choice } from "../controls/fields";
import { EmptyState, ErrorPage, LoadingPage } from "../controls/states";
import { useAsked } from "../kernel/queries";
import { useRested } from "../kernel/useRested";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { areaPaths } from "./NewProcess";
import type { Place, ProcessActs } from "./ProcessMenu";
import { ProcessTable } from "./ProcessTable";
import { useCounting } from "./useCounting";

/** Milliseconds without a key before what was typed is asked for. */
const restBeforeAsking = 150;

interface Filter {
  readonly area: string | null;
  readonly needing: boolean;
}

/** The processes as a table that is narrowed by name, area and need, put in groups, ordered, and shown a page at a time. */
export function ProcessList(props: {
  readonly areas: readonly Place[];
  readonly filter: Filter;
  readonly onFilter: (filter: Filter) => void;
  readonly acts: ProcessActs;
}) {
  const { areas, filter, onFilter, acts } = props;
  const [typed, setTyped] = useState("");
  const [order, setOrder] = useState<HomeOrder>("own");
  const [group, setGroup] = useState<HomeGroup>("none");
  const [from, setFrom] = useState(0);
  const words = useRested(typed, restBeforeAsking).slice(0, 100);
  const wanted = { ...filter, text: words, order, group, from };
  const { data, error, refetch } = useAsked(home.openHome, wanted, { keepsLast: true });
  useCounting(data?.counting ?? 0, () => void refetch());
  const narrow = (next: Partial<Filter>) => {
    onFilter({ ...filter, ...next });
    setFrom(0);
  };
  if (error && !data) return <ErrorPage message={wordsOf(error)} retry={() => void refetch()} />;
  if (!data) return <LoadingPage label={text.shell.loading} />;
  const isNarrowed = typed !== "" || filter.area !== null || filter.needing;
  return (
    <>
      <Flex gap={3} mb={3} align="center" wrap="wrap">
        <Input
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setFrom(0);
          }}
          placeholder={text.home.filter}
          aria-label={text.home.filter}
          size="sm"
          w="260px"
          bg="paper"
          borderColor="line"
        />
        <Box w="210px">
          <Choice
            label={text.home.inAreaOnly}
            value={filter.area ?? ""}
            options={[["", text.home.allAreas], ...areaPaths(areas)]}
            onChoose={(area) => narrow({ area: area === "" ? null : area })}
          />
        </Box>
        <chakra.label display="flex" gap={1.5} alignItems="center" cursor="pointer">
          <input
            type="checkbox"
            checked={filter.needing}
            onChange={(event) => narrow({ needing: event.target.checked })}
          />
          {text.home.onlyNeeding}
        </chakra.label>
        <Box flex="1" />
        <Box w="180px">
          <Choice
            label={text.home.groupBy}
            value={group}
            options={homeGroups.map((one) => [one, text.home.groups[one]] as const)}
            onChoose={(next) => {
              setGroup(next);
              setFrom(0);
            }}
          />
        </Box>
      </Flex>
      {data.total === 0 ? (
        <EmptyState>{isNarrowed ? text.home.noneSuch : text.home.empty}</EmptyState>
      ) : (
        <ProcessTable
          data={data}
          order={order}
          onOrder={(next) => {
            setOrder(next);
            setFrom(0);
          }}
          from={from}
          onFrom={setFrom}
          group={group}
          acts={acts}
        />
      )}
    </>
  );
}
