"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useCallback, useMemo, useState } from "react";
import { storyOf } from "@/core/forecast";
import { entryOf, type Id, isFlowNode } from "@/core/model";
import { constant, readSaid, saidOf, scenariosOf } from "@/core/scenario";
import { useEntries } from "../../controls/entries";
import { BesideTitle } from "../../controls/Panel";
import { EmptyState } from "../../controls/states";
import { useKeys } from "../../controls/useKeys";
import { text } from "../../messages";
import { CommentOn } from "../../version/comments/CommentOn";
import { aboutOf } from "../../version/comments/store";
import { firstScenario } from "../../version/figures/firstScenario";
import { sheetRows } from "../../version/figures/sheetRows";
import { useExact } from "../../version/useExact";
import { useVersion } from "../../version/VersionContext";
import { Against } from "./Against";
import { Durations } from "./Durations";
import { Formula } from "./Formula";
import { HowBusy } from "./HowBusy";
import { QueueCurve } from "./QueueCurve";
import { SampleCases } from "./SampleCases";
import { ScenarioHead, type View } from "./ScenarioHead";
import { ScenarioSheet } from "./ScenarioSheet";
import { Sentence } from "./Sentence";
import { Throughput } from "./Throughput";
import { useForecast, useOpenModels } from "./useForecast";
import { WhatItCosts } from "./WhatItCosts";
import { WhereTime } from "./WhereTime";
import { WithoutPlaying } from "./WithoutPlaying";

// Shown only when asked for, and loaded then.
const WhatIf = dynamic(() => import("./WhatIf").then((file) => file.WhatIf), { loading: () => null });
const HowMany = dynamic(() => import("./HowMany").then((file) => file.HowMany), { loading: () => null });
const FiguresOnPage = dynamic(() => import("./FiguresOnPage").then((file) => file.FiguresOnPage), {
  loading: () => null,
});

const OneCase = dynamic(() => import("./OneCase").then((file) => file.OneCase), { loading: () => null });

/** The case that is followed first: by then the first queues have come up. */
const firstFollowed = 19;

const commentOnFigure = (title: string) => <CommentOn about={aboutOf("figure", `forecast ${title}`, title)} />;

/** What follows from a scenario: sentences first, then pictures, and the figures they come from. */
export function ForecastStage() {
  const model = useVersion((state) => state.model);
  const version = useVersion((state) => state.info.version.id);
  const models = useOpenModels();
  const { entries } = useEntries();
  const router = useRouter();
  const [chosen, setChosen] = useState<Id | undefined>();
  // Where nothing is said yet, saying it is what one comes for, and goes on while the first figures are there.
  const [view, setView] = useState<View>(() => (scenariosOf(model).length > 0 ? "pictures" : "figures"));
  const [asking, setAsking] = useState<"what-if" | "how-many" | null>(null);
  const [resource, setResource] = useState<Id | undefined>();
  const [shown, setShown] = useState<Id | undefined>();
  const [followed, setFollowed] = useState(firstFollowed);
  const [aimTyped, setAimTyped] = useState("");
  const scenarios = scenariosOf(model);
  const scenario = scenarios.find(({ id }) => id === chosen) ?? scenarios[0];
  const isKnown = scenario !== undefined && scenariosOf(models.settled).some(({ id }) => id === scenario.id);
  const ran = useForecast(models.settled, models.called, isKnown ? scenario.id : undefined, models.decisions);
  const exact = useExact(models, scenario);
  const rows = useMemo(() => sheetRows(model), [model]);
  const hasSteps = useMemo(() => [...model.elements].some(({ type }) => isFlowNode(type)), [model]);
  const hues = useMemo(() => new Map(entries.map(({ id, hue }) => [id, hue ?? undefined])), [entries]);
  const hueOf = useCallback(
    (id: Id) => {
      const element = model.elements.get(id);
      const entry = element && entryOf(element);
      return entry === undefined ? undefined : hues.get(entry);
    },
    [model, hues],
  );
  const show = useCallback(
    (element: Id) => {
      setShown(element);
      // What lies between two sites is on no page; it is said in the sheet.
      setView(model.elements.has(element) ? "diagram" : "figures");
    },
    [model],
  );
  const follow = useCallback((number: number) => {
    setFollowed(number);
    setView("case");
  }, []);
  const { again, stop } = ran;
  useKeys({
    f: () => setView((now) => (now === "figures" ? "pictures" : "figures")),
    d: () => setView((now) => (now === "diagram" ? "pictures" : "diagram")),
    o: () => setView((now) => (now === "case" ? "pictures" : "case")),
    w: () => setAsking("what-if"),
    h: () => setAsking("how-many"),
    r: again,
  });
  if (!hasSteps) return <EmptyState>{text.forecast.nothing}</EmptyState>;
  const forecast = ran.done?.forecast;
  const isOld = ran.share !== undefined && ran.firstOf === undefined;
  const story = forecast && storyOf(forecast);
  const watched = resource ?? (story?.bottleneck ?? story?.closed)?.resource.id;
  const read = readSaid(aimTyped, "time");
  const aim = read?.kind === "constant" && read.value > 0 ? read.value : undefined;
  const most = (story?.bottleneck ?? story?.closed)?.element?.id ?? story?.event?.id;
  const isSheet = view === "figures" || !scenario;
  return (
    <BesideTitle.Provider value={commentOnFigure}>
      <Flex direction="column" flex="1" minH={0}>
        <ScenarioHead
          scenarios={scenarios}
          scenario={scenario}
          view={isSheet ? "figures" : view}
          share={ran.share}
          canAsk={forecast !== undefined}
          onScenario={setChosen}
          onView={setView}
          onWhatIf={() => setAsking("what-if")}
          onHowMany={() => setAsking("how-many")}
          onRun={again}
          onStop={stop}
        />
        {ran.unsound && (
          <Flex px={5} py={3} gap={3} align="center" role="alert">
            <chakra.p color="trouble">{text.forecast.unsound(ran.unsound.name)}</chakra.p>
            <Button
              size="sm"
              variant="outline"
              bg="paper"
              onClick={() => router.push(`/v/${encodeURIComponent(version)}/check`)}
            >
              {text.forecast.toCheck}
            </Button>
          </Flex>
        )}
        {ran.error && (
          <chakra.p px={5} py={2} color="trouble" role="alert">
            {ran.error}
          </chakra.p>
        )}
        {ran.isStopped && (
          <chakra.p px={5} pt={2} color="attention" fontSize="13px" role="status">
            {text.forecast.stopped}
          </chakra.p>
        )}
        {ran.firstOf !== undefined && (
          <chakra.p px={5} pt={2} color="quiet" fontSize="13px" role="status" data-testid="first-run">
            {text.forecast.firstRun(ran.firstOf)}
          </chakra.p>
        )}
        {forecast && scenario && view !== "case" && (
          <Sentence forecast={forecast} isOld={isOld} hueOf={hueOf} onShow={show}>
            {exact && <Formula exact={exact} currency={scenario.currency} />}
          </Sentence>
        )}
        {isSheet ? (
          <ScenarioSheet scenario={scenario ?? firstScenario} />
        ) : view === "diagram" && forecast ? (
          <FiguresOnPage model={models.settled} forecast={forecast} most={most} shown={shown} />
        ) : view === "case" && scenario && models.called ? (
          <OneCase
            model={models.settled}
            called={models.called}
            scenario={scenario}
            number={followed}
            onNumber={setFollowed}
          />
        ) : forecast && scenario ? (
          <Box
            px={5}
            pb={4}
            flex="1"
            minH="460px"
            display="grid"
            gap={3}
            gridTemplateColumns={{ base: "1fr", lg: "repeat(6, minmax(0, 1fr))" }}
            gridTemplateRows={{ lg: "minmax(230px, 1.15fr) minmax(210px, 1fr) 260px auto" }}
            overflow="auto"
            aria-busy={isOld}
            css={{ "& > section": { minHeight: "210px" } }}
          >
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="230px">
              <Durations forecast={forecast} aim={aim} typed={aimTyped} onAim={setAimTyped} />
            </Box>
            <Box gridColumn={{ lg: "span 4" }} display="grid" minH="230px">
              <WhereTime forecast={forecast} order={rows.map(({ element }) => element)} hueOf={hueOf} onShow={show} />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <HowBusy
                forecast={forecast}
                taken={ran.done?.taken ?? []}
                chosen={watched}
                hueOf={hueOf}
                onChoose={setResource}
              />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <QueueCurve
                forecast={forecast}
                resource={watched}
                hue={watched === undefined ? undefined : hueOf(watched)}
                start={scenario.start}
              />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <Against forecast={forecast} scenario={scenario.id} />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <WhatItCosts forecast={forecast} hueOf={hueOf} onShow={show} />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <SampleCases
                forecast={forecast}
                start={scenario.start}
                zone={scenario.zone}
                hueOf={hueOf}
                onFollow={follow}
              />
            </Box>
            <Box gridColumn={{ lg: "span 2" }} display="grid" minH="210px">
              <Throughput forecast={forecast} start={scenario.start} />
            </Box>
            {exact && (
              <Box gridColumn={{ lg: "span 6" }} display="grid">
                <WithoutPlaying model={models.settled} exact={exact} forecast={forecast} hueOf={hueOf} onShow={show} />
              </Box>
            )}
          </Box>
        ) : null}
        {asking === "what-if" && scenario && (
          <WhatIf
            models={models}
            scenario={scenario}
            rows={rows}
            quantities={new Map(forecast?.resources.map(({ id, quantity }) => [id, quantity]))}
            onClose={() => setAsking(null)}
          />
        )}
        {asking === "how-many" && scenario && forecast && (
          <HowMany
            models={models}
            scenario={scenario}
            aim={saidOf(constant(aim ?? roundTime(forecast.cycleTime.p90 * 0.9)), "time")}
            onClose={() => setAsking(null)}
          />
        )}
      </Flex>
    </BesideTitle.Provider>
  );
}

/** A time that reads as an aim: whole days, hours or minutes. */
function roundTime(seconds: number): number {
  const size = [86_400, 3600, 60].find((one) => seconds >= 2 * one) ?? 1;
  return Math.max(size, Math.round(seconds / size) * size);
}
