"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback, useState } from "react";
import type { GroupDifference, GroupsCompared, LogFilter } from "@/core/evidence";
import { BarChoice } from "../../../controls/BarChoice";
import { EmptyState } from "../../../controls/states";
import { text, worded } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { LogTable } from "./LogTable";
import { useAnswer } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.groups;

/** In what two groups of cases differ: those that are left against all others, or two periods. */
export function GroupsView(props: { readonly runner: LogRunner; readonly filters: readonly LogFilter[] }) {
  const { runner, filters } = props;
  const [split, setSplit] = useState("others");
  const [day, setDay] = useState("");
  const before = split === "day" ? Date.parse(`${day}T00:00:00Z`) : null;
  const isAsked = before === null ? filters.length > 0 : !Number.isNaN(before);
  const ask = useCallback(
    (): Promise<GroupsCompared> => runner.run("compareGroups", {}, { filters, before }),
    [runner, filters, before],
  );
  const { answer, isOld, share, error, again } = useAnswer(isAsked ? ask : undefined);
  return (
    <Flex direction="column" gap={4} p={4} overflow="auto" flex="1" minH={0} data-testid="log-groups">
      <chakra.p color="quiet" maxW="90ch">
        {words.explain}
      </chakra.p>
      <Flex gap={3} align="center" wrap="wrap">
        <BarChoice
          isWide
          label={words.split}
          value={split}
          options={[
            ["others", words.splits.others],
            ["day", words.splits.day],
          ]}
          onChange={setSplit}
        />
        {split === "day" && (
          <chakra.input
            type="date"
            aria-label={words.day}
            value={day}
            h="26px"
            px={2}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            onChange={(event) => setDay(event.target.value)}
          />
        )}
      </Flex>
      {!isAsked ? (
        <EmptyState>{split === "day" ? words.day : words.narrow}</EmptyState>
      ) : !answer || isOld ? (
        <Working share={share} error={error} onAgain={again} />
      ) : (
        <Compared compared={answer} />
      )}
    </Flex>
  );
}

function Compared({ compared }: { readonly compared: GroupsCompared }) {
  const { cases, differences } = compared;
  if (cases.includes(0)) return <EmptyState>{words.empty}</EmptyState>;
  return (
    <>
      <chakra.p fontWeight="700">{words.sizes(cases[0], cases[1])}</chakra.p>
      {differences.length === 0 ? (
        <EmptyState>{words.none}</EmptyState>
      ) : (
        <LogTable
          title={text.evidence.views.groups}
          head={[words.difference, words.chance, ""]}
          rows={differences.slice(0, 60).map((one: GroupDifference) => ({
            key: one.statement.text,
            cells: [
              worded(one.statement),
              one.chance < 0.001 ? words.below : one.chance.toFixed(3),
              <chakra.span
                key="said"
                color={one.isMoreThanChance ? "ink" : "quiet"}
                fontWeight={one.isMoreThanChance ? 700 : 400}
              >
                {one.isMoreThanChance ? words.more : words.less}
              </chakra.span>,
            ],
          }))}
        />
      )}
    </>
  );
}
