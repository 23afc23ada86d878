"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import type { Command } from "@/core/commands";
import type { RunProposal } from "@/core/forecast";
import { constant, isZone, readSaid, type Scenario, saidOf, wallAt } from "@/core/scenario";
import { useRoleDefaults } from "../../controls/entries";
import { TextField } from "../../controls/fields";
import { timeWords } from "../../controls/units";
import { text } from "../../messages";
import { useAskedJob } from "../../version/useAskedJob";
import { useVersionStore } from "../../version/VersionContext";
import { withCalled } from "../../version/withCalled";
import { AskField, UnderWay } from "./askParts";
import { useOpenModels } from "./useForecast";

const words = text.forecast.sheet;

/** When a scenario begins and ends, what of it counts, and how often it is run. */
export function HowItIsRun({ scenario }: { readonly scenario: Scenario }) {
  const store = useVersionStore();
  const [problem, setProblem] = useState<string | undefined>();
  const set = (said: Extract<Command, { type: "setScenario" }>["words"]) =>
    store.getState().dispatch({ type: "setScenario", id: scenario.id, words: said });
  const seconds = (typed: string): number | null | undefined => {
    if (typed.trim() === "") return null;
    const read = readSaid(typed, "time");
    return read?.kind === "constant" ? read.value : undefined;
  };
  const whole = (typed: string): number | null | undefined =>
    typed.trim() === "" ? null : /^\d{1,9}$/.test(typed.trim()) ? Number(typed) : undefined;
  const time = (value: number | undefined) => (value === undefined ? "" : saidOf(constant(value), "time"));
  const fields: readonly (readonly [label: string, value: string, commit: (typed: string) => unknown])[] = [
    [
      words.begins,
      wallText(scenario),
      (typed) => {
        const start = typed.trim().replace(" ", "T");
        if (/^\d{4}-\d\d-\d\d(T\d\d:\d\d)?$/.test(start))
          set({ start: start.length === 10 ? `${start}T08:00:00` : `${start}:00` });
      },
    ],
    [
      words.zone,
      scenario.zone,
      (typed) => {
        const zone = typed.trim();
        if (zone !== "" && !isZone(zone)) return words.cannotZone(zone);
        // The clock on the wall stays, so that a start at eight is one at eight there.
        set({ zone: zone || null, start: wallText(scenario).replace(" ", "T").concat(":00") });
      },
    ],
    [
      words.lasts,
      time(scenario.duration),
      (typed) => {
        const value = seconds(typed);
        if (value !== undefined) set({ duration: value });
      },
    ],
    [
      words.notCounted,
      time(scenario.warmUp),
      (typed) => {
        const value = seconds(typed);
        if (value !== undefined) set({ warmUp: value });
      },
    ],
    [
      words.runs,
      scenario.replications === undefined ? "" : String(scenario.replications),
      (typed) => {
        const value = whole(typed);
        if (value !== undefined && value !== 0) set({ replications: value });
      },
    ],
    [
      words.seed,
      scenario.seed === undefined ? "" : String(scenario.seed),
      (typed) => {
        const value = whole(typed);
        if (value !== undefined) set({ seed: value });
      },
    ],
    [
      words.currency,
      scenario.currency,
      (typed) => {
        if (typed.trim() !== "") set({ currency: typed.trim().slice(0, 20) });
      },
    ],
  ];
  return (
    <Box
      as="section"
      aria-label={words.run}
      w={{ base: "100%", xl: "250px" }}
      flexShrink={0}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      p={3}
      mt={{ base: 0, xl: "22px" }}
    >
      <chakra.h2 fontSize="13px" fontWeight="700" pb={2}>
        {words.run}
      </chakra.h2>
      {fields.map(([label, value, commit]) => (
        <Flex key={label} align="center" gap={2} mb={1.5}>
          <chakra.span fontSize="12px" color="quiet" w="84px" flexShrink={0}>
            {label}
          </chakra.span>
          <TextField
            label={label}
            value={value}
            onCommit={(typed) => {
              const told = commit(typed);
              setProblem(typeof told === "string" ? told : undefined);
            }}
          />
        </Flex>
      ))}
      {problem && (
        <chakra.p color="trouble" fontSize="12px" role="alert">
          {problem}
        </chakra.p>
      )}
      <Proposed scenario={scenario} onTake={set} />
    </Box>
  );
}

/** What a clock where the scenario is shows at its start. */
function wallText({ start, zone }: Scenario): string {
  const { year, month, day, hour, minute } = wallAt(start, zone);
  const two = (value: number) => String(value).padStart(2, "0");
  return `${year}-${two(month)}-${two(day)} ${two(hour)}:${two(minute)}`;
}

/** How it had better be run, worked out when asked for, and taken by a button. */
function Proposed(props: {
  readonly scenario: Scenario;
  readonly onTake: (words: Extract<Command, { type: "setScenario" }>["words"]) => void;
}) {
  const { scenario, onTake } = props;
  const { settled, called, decisions } = useOpenModels();
  const roles = useRoleDefaults();
  const { share, error, run, stop, fail } = useAskedJob();
  const [within, setWithin] = useState("5");
  const [proposal, setProposal] = useState<RunProposal | null | undefined>();
  const propose = async () => {
    const percent = Number(within.replace("%", "").replace(",", "."));
    if (!(percent >= 0.1 && percent <= 100)) return fail(words.cannotShare(within));
    if (!called || !roles) return;
    const answer = await run("runLength", withCalled(settled, called), {
      scenario: scenario.id,
      roles,
      decisions,
      within: percent / 100,
    });
    if (answer && "proposal" in answer) setProposal(answer.proposal);
  };
  return (
    <Box pt={2} mt={1} borderTopWidth="1px" borderColor="line" fontSize="12px" data-testid="run-proposal">
      <Flex gap={2} align="center" wrap="wrap">
        {words.meanWithin}
        <AskField label={words.meanWithin} value={within} width="44px" onChange={setWithin} /> %
        {share === undefined ? (
          <Button size="xs" variant="outline" bg="paper" borderColor="line" onClick={() => void propose()}>
            {words.propose}
          </Button>
        ) : (
          <UnderWay share={share} onStop={stop} />
        )}
      </Flex>
      {error && (
        <chakra.p color="trouble" role="alert">
          {error}
        </chakra.p>
      )}
      {proposal === null && <chakra.p color="quiet">{text.forecast.tell.none}</chakra.p>}
      {proposal && (
        <>
          <chakra.p mt={1.5}>
            {proposal.warmUp === 0
              ? words.settled
              : words.settles(timeWords(proposal.warmUp), proposal.cases, proposal.ofCases)}{" "}
            {words.runsNeeded(proposal.replications, timeWords(proposal.half), proposal.done)}
          </chakra.p>
          <Button
            size="xs"
            mt={1.5}
            variant="outline"
            bg="paper"
            borderColor="accent"
            color="accent"
            onClick={() =>
              onTake({
                warmUp: proposal.warmUp || null,
                replications: Math.min(proposal.replications, 1_000),
              })
            }
          >
            {words.takeProposal}
          </Button>
        </>
      )}
    </Box>
  );
}
