"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useState } from "react";
import { constant, readSaid, type Scenario } from "@/core/scenario";
import type { Staffed, StaffedRow } from "@/jobs";
import { DialogFrame } from "../../controls/DialogFrame";
import { useRoleDefaults } from "../../controls/entries";
import { moneyWords, percentWords } from "../../controls/units";
import { text } from "../../messages";
import { useAskedJob } from "../../version/useAskedJob";
import { useVersionStore } from "../../version/VersionContext";
import { withCalled } from "../../version/withCalled";
import { AskField, UnderWay } from "./askParts";
import type { useOpenModels } from "./useForecast";

const words = text.forecast.staff;

/** The cheapest staffing that keeps an aim, searched with progress, to be stopped at any time. */
export function HowMany(props: {
  readonly models: ReturnType<typeof useOpenModels>;
  readonly scenario: Scenario;
  readonly aim: string;
  readonly onClose: () => void;
}) {
  const { models, scenario, onClose } = props;
  const roles = useRoleDefaults();
  const store = useVersionStore();
  const [within, setWithin] = useState(props.aim);
  const [of10, setOf10] = useState("9");
  const { share, error, run, stop, fail } = useAskedJob();
  const [found, setFound] = useState<Staffed | undefined>();
  const search = async () => {
    const read = readSaid(within, "time");
    const part = Number(of10);
    if (read?.kind !== "constant" || read.value <= 0 || !(part > 0 && part <= 10)) {
      fail(text.forecast.sheet.cannot(within));
      return;
    }
    if (!models.called || !roles) return;
    const target = { within: read.value, share: part / 10 };
    const answer = await run("staff", withCalled(models.settled, models.called), {
      scenario: scenario.id,
      roles,
      decisions: models.decisions,
      target,
    });
    if (answer && "kept" in answer) setFound(answer);
  };
  const take = (row: StaffedRow) => {
    store.getState().dispatch(
      ...row.quantities.map(({ id, count }) => ({
        type: "setAssumption" as const,
        scenario: scenario.id,
        element: id,
        parameter: "quantity" as const,
        value: constant(count),
      })),
    );
    onClose();
  };
  const rows = found ? (found.kept.length > 0 ? found.kept.slice(0, 6) : found.nearest ? [found.nearest] : []) : [];
  return (
    <DialogFrame
      title={words.title}
      width="680px"
      onClose={onClose}
      footer={
        <Button variant="outline" onClick={onClose}>
          {text.dialog.close}
        </Button>
      }
    >
      <Flex gap={2} align="center" fontSize="13px" wrap="wrap">
        <span>{words.share}</span>
        <AskField label={words.share} value={of10} width="48px" onChange={setOf10} />
        <span>{words.within}</span>
        <AskField label={words.within} value={within} width="110px" onChange={setWithin} />
        {share === undefined ? (
          <Button size="sm" h="28px" bg="accent" color="onAccent" onClick={() => void search()}>
            {words.search}
          </Button>
        ) : (
          <UnderWay share={share} onStop={stop} />
        )}
      </Flex>
      <chakra.p fontSize="12px" color="quiet" pt={1.5}>
        {words.hint}
      </chakra.p>
      {error && (
        <chakra.p color="trouble" role="alert" fontSize="13px">
          {error}
        </chakra.p>
      )}
      {found && (
        <chakra.table
          w="100%"
          mt={3}
          fontSize="13px"
          data-testid="staffings"
          css={{ "& th, & td": { textAlign: "start", padding: "4px 8px 4px 0" } }}
        >
          <chakra.caption textAlign="start" fontWeight="700" pb={1}>
            {found.kept.length > 0 ? words.kept : words.none}
          </chakra.caption>
          <thead>
            <tr>
              {(rows[0]?.quantities ?? []).map(({ id, name }) => (
                <chakra.th key={id} scope="col" color="quiet" fontWeight="600">
                  {name}
                </chakra.th>
              ))}
              <chakra.th scope="col" color="quiet" fontWeight="600">
                {words.hourly}
              </chakra.th>
              <chakra.th scope="col" color="quiet" fontWeight="600">
                {words.inTime}
              </chakra.th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.quantities.map(({ count }) => count).join(" ")}>
                {row.quantities.map(({ id, count }) => (
                  <chakra.td key={id} borderTopWidth="1px" borderColor="line" fontWeight="600">
                    {count}
                  </chakra.td>
                ))}
                <chakra.td borderTopWidth="1px" borderColor="line">
                  {moneyWords(row.hourly, scenario.currency)}
                </chakra.td>
                <chakra.td borderTopWidth="1px" borderColor="line">
                  {percentWords(row.inTime)}
                </chakra.td>
                <chakra.td borderTopWidth="1px" borderColor="line">
                  <Button size="xs" variant="outline" bg="paper" borderColor="line" onClick={() => take(row)}>
                    {words.take}
                  </Button>
                </chakra.td>
              </tr>
            ))}
          </tbody>
        </chakra.table>
      )}
      {found && !found.isWhole && (
        <chakra.p fontSize="12px" color="quiet">
          {words.bounded}
        </chakra.p>
      )}
    </DialogFrame>
  );
}
