"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useCallback, useMemo, useState } from "react";
import type { LogRow } from "@/contract/evidence";
import { type LogFilter, mapIds } from "@/core/evidence";
import { type Id, trustStored } from "@/core/model";
import type { MappedLog } from "@/jobs";
import { ModelPage } from "../../../canvas/ModelPage";
import type { Mark } from "../../../canvas/marks/mark";
import { BarChoice } from "../../../controls/BarChoice";
import { locale, text } from "../../../messages";
import type { LogRunner } from "../../../version/logRunner";
import { DiscoverDialog } from "./DiscoverDialog";
import { spanWords } from "./said";
import { useAnswer } from "./useLogJob";
import { Working } from "./Working";

const words = text.evidence.map;
const nothing: readonly Id[] = [];
const pickNothing = () => undefined;
const shares = [100, 80, 60, 40, 20].map((percent) => [String(percent / 100), words.shares(percent)] as const);

/** What happened, without a model: activities, and what directly followed what, how often and how long after. */
export function MapView(props: {
  readonly log: LogRow;
  readonly runner: LogRunner;
  readonly filters: readonly LogFilter[];
}) {
  const { log, runner, filters } = props;
  const [activities, setActivities] = useState("1");
  const [paths, setPaths] = useState("0.4");
  const [shows, setShows] = useState("times");
  const [isMaking, setMaking] = useState(false);
  const ask = useCallback(
    () => runner.run("mapOfLog", {}, { filters, activities: Number(activities), paths: Number(paths) }),
    [runner, filters, activities, paths],
  );
  const { answer, share, error, again } = useAnswer<MappedLog>(ask);
  const model = useMemo(() => answer && trustStored(answer.model), [answer]);
  const marksOn = useCallback((): Mark[] => (answer ? marksOf(answer, shows === "times") : []), [answer, shows]);
  return (
    <Flex direction="column" flex="1" minH={0} data-testid="log-map">
      <Flex px={4} py={1.5} gap={3} align="center" wrap="wrap" bg="paper" borderBottomWidth="1px" borderColor="line">
        <chakra.span color="quiet" fontSize="12px">
          {words.activities}
        </chakra.span>
        <BarChoice label={words.activities} value={activities} options={shares} onChange={setActivities} />
        <chakra.span color="quiet" fontSize="12px">
          {words.paths}
        </chakra.span>
        <BarChoice label={words.paths} value={paths} options={shares} onChange={setPaths} />
        <BarChoice
          label={words.shows}
          value={shows}
          options={[
            ["times", words.times],
            ["took", words.took],
          ]}
          onChange={setShows}
        />
        <chakra.span color="quiet" fontSize="12px" flex="1">
          {answer && (answer.map.nodesLeft > 0 || answer.map.edgesLeft > 0)
            ? words.left(answer.map.nodesLeft, answer.map.edgesLeft)
            : ""}
        </chakra.span>
        <Button size="xs" variant="outline" onClick={() => setMaking(true)}>
          {words.discover}
        </Button>
      </Flex>
      {!model ? (
        <Working share={share} error={error} onAgain={again} />
      ) : (
        <ModelPage
          model={model}
          about={nothing}
          marksOn={marksOn}
          label={words.label}
          testId="map-page"
          onPick={pickNothing}
        />
      )}
      {isMaking && <DiscoverDialog log={log} runner={runner} filters={filters} onClose={() => setMaking(false)} />}
    </Flex>
  );
}

function marksOf({ map }: MappedLog, isTimes: boolean): Mark[] {
  const label = (on: Id, said: string): Mark => ({
    on,
    means: "followed",
    as: "label",
    text: said,
    tone: "pencil",
    at: "end",
  });
  return [
    ...(isTimes ? map.nodes.map(({ times }, place) => label(mapIds.node(place), times.toLocaleString(locale()))) : []),
    ...map.edges.flatMap(({ times, median }, place) => {
      const said = isTimes ? times.toLocaleString(locale()) : spanWords(median);
      return said === "" ? [] : [label(mapIds.edge(place), said)];
    }),
  ];
}
