"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ReactNode } from "react";
import { type Exact, type Forecast, type Path, storyOf } from "@/core/forecast";
import { type Id, isActivity, isConnection, type Model, nameOf } from "@/core/model";
import { Panel } from "../../controls/Panel";
import { percentWords, timeWords } from "../../controls/units";
import { text, typeWord } from "../../messages";

const words = text.forecast.exact;

/** What the equations say, beside what was played, and where the difference comes from. */
export function WithoutPlaying(props: {
  readonly model: Model;
  readonly exact: Exact;
  readonly forecast: Forecast;
  readonly hueOf: (resource: Id) => string | undefined;
  readonly onShow: (element: Id) => void;
}) {
  const { model, exact, forecast, hueOf, onShow } = props;
  const { paths, stations } = exact;
  const called = (id: Id) => nameOf(model, id) || typeWord(model.elements.get(id)?.type ?? "") || id;
  const longest = exact.critical.filter((id) => isActivity(model.elements.get(id)?.type ?? ""));
  const played = new Map(forecast.resources.map((one) => [one.id, one]));
  const wait = (seconds: number) => (Number.isFinite(seconds) ? timeWords(seconds) : words.grows);
  return (
    <Panel
      title={words.title}
      unit={words.unit}
      table={{
        head: [words.path, text.forecast.shareOf, text.forecast.columns.time],
        rows: paths.map((path) => [pathWords(path, called, model), percentWords(path.share), timeWords(path.mean)]),
      }}
    >
      <Box display="grid" gridTemplateColumns={{ base: "1fr", lg: "1.1fr 1.3fr 1.2fr" }} gap={6} fontSize="13px">
        <Box>
          {differenceOf(exact, forecast).map((sentence) => (
            <chakra.p key={sentence} mb={1.5}>
              {sentence}
            </chakra.p>
          ))}
          {longest.length > 0 && (
            <chakra.p color="quiet">
              {words.longest}{" "}
              {longest.map((id, at) => (
                <span key={id}>
                  {at > 0 && " → "}
                  <chakra.button type="button" color="ink" cursor="pointer" onClick={() => onShow(id)}>
                    {called(id)}
                  </chakra.button>
                </span>
              ))}
            </chakra.p>
          )}
        </Box>
        <Column title={words.paths}>
          {paths.length === 0 && <chakra.p color="quiet">{words.noPaths}</chakra.p>}
          <Flex as="ol" direction="column" gap={1} listStyleType="none" m={0} p={0} data-testid="exact-paths">
            {paths.slice(0, 5).map((path) => (
              <chakra.li
                key={path.choices.map(({ at, way }) => `${at} ${way}`).join()}
                display="grid"
                gridTemplateColumns="44px minmax(0, 1fr) 64px"
                gap={2}
              >
                <chakra.span fontWeight="700" textAlign="end">
                  {percentWords(path.share)}
                </chakra.span>
                <chakra.span lineClamp={2} title={pathWords(path, called, model)}>
                  {pathWords(path, called, model)}
                </chakra.span>
                <chakra.span color="quiet" textAlign="end">
                  {timeWords(path.mean)}
                </chakra.span>
              </chakra.li>
            ))}
          </Flex>
        </Column>
        <Column title={words.stations}>
          {stations.length === 0 && <chakra.p color="quiet">{text.forecast.noPeople}</chakra.p>}
          {stations.length > 0 && (
            <chakra.table
              w="100%"
              css={{ "& th, & td": { textAlign: "start", padding: "1px 8px 1px 0", fontWeight: "inherit" } }}
            >
              <thead>
                <chakra.tr color="quiet" fontSize="12px">
                  <th scope="col">{text.forecast.columns.role}</th>
                  <th scope="col">{words.load}</th>
                  <th scope="col">{words.byFormula}</th>
                  <th scope="col">{words.asPlayed}</th>
                </chakra.tr>
              </thead>
              <tbody>
                {stations.map(({ id, load, wait: seconds }) => (
                  <tr key={id}>
                    <td>
                      <Flex gap={1.5} align="center">
                        <Box w="4px" h="13px" bg={hueOf(id) ?? "pencil"} flexShrink={0} />
                        {called(id)}
                      </Flex>
                    </td>
                    <td>{percentWords(load)}</td>
                    <td>{wait(seconds)}</td>
                    <td>{timeWords(played.get(id)?.waitingBusyMean ?? 0)}</td>
                  </tr>
                ))}
              </tbody>
            </chakra.table>
          )}
          <chakra.p color="quiet" fontSize="12px" mt={1.5}>
            {words.stationsHint}
          </chakra.p>
        </Column>
      </Box>
    </Panel>
  );
}

/** Why a case as it was played takes longer, or less, than by the equations. */
function differenceOf({ duration, variance, doubts }: Exact, forecast: Forecast): string[] {
  if (duration === undefined) return [words.notBlocks];
  const { cycleTime } = forecast;
  const said = [words.time(timeWords(duration), timeWords(Math.sqrt(variance ?? 0)))];
  const more = cycleTime.mean - duration;
  const chance = (cycleTime.ci95[1] - cycleTime.ci95[0]) / 2;
  const cases = Math.max(1, forecast.cases + forecast.underWay);
  const queues = storyOf(forecast).forPeople;
  const hours =
    forecast.resources.reduce((sum, one) => sum + one.requests * (one.waitingMean - one.waitingBusyMean), 0) / cases;
  if (forecast.cases === 0) return said;
  const isChance = Math.abs(more) <= chance && queues < chance && hours < chance;
  said.push(
    isChance
      ? words.same(timeWords(cycleTime.mean))
      : words.differs(timeWords(cycleTime.mean), timeWords(queues), timeWords(hours), timeWords(chance)),
  );
  // Long cases that are still under way at the end are not among those that were counted.
  if (forecast.underWay > forecast.cases / 50) said.push(words.underWay(Math.round(forecast.underWay)));
  if (doubts.length > 0) said.push(text.forecast.formulaDoubts(doubts.join(", ")));
  return said;
}

/** The choices of a path, by answer, else by what the flow or event is called. */
function pathWords({ choices }: Path, called: (id: Id) => string, model: Model): string {
  if (choices.length === 0) return words.onlyPath;
  return choices
    .map(({ at, way }) => {
      const element = model.elements.get(way);
      const target = element && isConnection(element.type) ? element.targetRef : undefined;
      const answer = nameOf(model, way) || (typeof target === "string" ? called(target) : called(way));
      return `${called(at)} ${answer}`;
    })
    .join(", ");
}

function Column({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box minW={0}>
      <chakra.h3 fontSize="12px" color="quiet" fontWeight="600" mb={1}>
        {title}
      </chakra.h3>
      {children}
    </Box>
  );
}
