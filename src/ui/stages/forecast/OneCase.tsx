"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { type ReactNode, useCallback, useEffect, useRef, useState } from "react";
import { type Followed, type Moment, standsAfter, standsFirst } from "@/core/forecast";
import type { Id, Model } from "@/core/model";
import type { Scenario } from "@/core/scenario";
import type { Playing, World } from "@/core/tokens";
import { type Pace, PlayButtons, paceNames, paces } from "../../canvas/playing/PlayButtons";
import { PlayedPage } from "../../canvas/playing/PlayedPage";
import { PlayBar, PlayColumn } from "../../canvas/playing/PlayFrame";
import { standingOf } from "../../canvas/playing/standing";
import { BarChoice } from "../../controls/BarChoice";
import { Keycap } from "../../controls/Keycap";
import { clockWords } from "../../controls/moment";
import { EmptyState, LoadingPage } from "../../controls/states";
import { moneyWords, timeWords } from "../../controls/units";
import { useKeys } from "../../controls/useKeys";
import { text } from "../../messages";
import { momentText, nameIn, wayWords } from "./momentText";
import { useFollowed } from "./useFollowed";

const words = text.forecast.oneCase;

/** One case of the forecast with its clock and what it costs, played on the drawing; where it can go several ways, a person may choose. */
export function OneCase(props: {
  readonly model: Model;
  readonly called: ReadonlyMap<Id, Model>;
  readonly scenario: Scenario;
  readonly number: number;
  readonly onNumber: (number: number) => void;
}) {
  const { model, called, scenario, number, onNumber } = props;
  const { found, isBusy, error, choose, isByHand } = useFollowed(model, called, scenario, number);
  const one = found?.case ?? undefined;
  const [at, setAt] = useState(0);
  const [isPlaying, setPlaying] = useState(false);
  const [pace, setPace] = useState<Pace>("usual");
  const [asks, setAsks] = useState(false);
  const standsAt = useStandings(found?.world, one);
  const last = one?.moments.length ?? 0;
  const now = Math.min(at, last);
  const next = one?.moments[now];
  const choice = next?.what.kind === "act" && next.what.choice && next.what.choice.ways.length > 1 ? next.what : null;
  const goTo = useCallback((to: number) => {
    setAt(Math.max(0, to));
    setPlaying(false);
  }, []);
  const step = useCallback(() => setAt(Math.min(now + 1, last)), [now, last]);
  const play = () => setPlaying(!isPlaying && now < last);
  const pick = (way: number) => {
    const chosen = choice?.choice?.ways[way];
    if (!choice?.choice || !chosen || isBusy) return;
    const isDrawn = chosen.does === choice.act.does && chosen.flows.join() === choice.act.flows.join();
    if (!isDrawn) choose(choice.choice.node, choice.choice, chosen);
    setAt(now + 1);
  };
  // By itself it goes on; where a person wants to choose, it stops and asks.
  const stops = now >= last || (asks && choice !== null);
  useEffect(() => {
    if (!isPlaying || isBusy) return;
    if (stops) {
      setPlaying(false);
      return;
    }
    const timer = setTimeout(() => setAt(now + 1), paces[pace]);
    return () => clearTimeout(timer);
  }, [isPlaying, isBusy, stops, now, pace]);
  useKeys({
    arrowright: step,
    arrowleft: () => goTo(now - 1),
    home: () => goTo(0),
    end: () => goTo(last),
    p: play,
    ...Object.fromEntries((choice?.choice?.ways ?? []).slice(0, 9).map((_, way) => [String(way + 1), () => pick(way)])),
  });
  const another = (to: number) => {
    onNumber(to);
    goTo(0);
  };
  if (error)
    return (
      <chakra.p px={5} py={3} color="trouble" role="alert">
        {error}
      </chakra.p>
    );
  if (!found) return <LoadingPage label={words.looking} />;
  if (!one) return <EmptyState>{words.none(number + 1)}</EmptyState>;
  const { world } = found;
  const standing = standingOf(world, standsAt(now));
  const before = one.moments[now - 1];
  const clock = before?.at ?? one.began;
  const pickOn = (element: Id) => {
    const way = choice?.choice?.ways.findIndex(({ flows }) => flows.length === 1 && flows[0] === element) ?? -1;
    if (way >= 0) pick(way);
  };
  return (
    <>
      <PlayedPage standing={standing} onPick={pickOn} />
      <PlayBar>
        <PlayButtons at={now} canStep={now < last} isPlaying={isPlaying} onGoTo={goTo} onStep={step} onPlay={play} />
        <BarChoice
          label={text.walk.pace}
          value={pace}
          options={paceNames}
          onChange={(value) => setPace(value as Pace)}
        />
        <chakra.label display="flex" alignItems="center" gap={1.5} cursor="pointer" flexShrink={0}>
          <input type="checkbox" checked={asks} onChange={(event) => setAsks(event.target.checked)} />
          {words.asks}
        </chakra.label>
        <Box flex="1" />
        <Small label={words.earlier} disabled={number === 0} onClick={() => another(number - 1)}>
          <ChevronLeft size={14} />
        </Small>
        <chakra.label display="flex" alignItems="center" gap={1.5} flexShrink={0}>
          {words.number}
          <chakra.input
            key={number}
            defaultValue={number + 1}
            inputMode="numeric"
            w="52px"
            h="26px"
            px={1.5}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
            onBlur={(event) => {
              const typed = Number(event.target.value);
              if (Number.isInteger(typed) && typed >= 1 && typed <= 100_000) another(typed - 1);
              else event.target.value = String(number + 1);
            }}
            onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          />
        </chakra.label>
        <Small label={words.later} onClick={() => another(number + 1)}>
          <ChevronRight size={14} />
        </Small>
        <chakra.span role="status" data-testid="case-step" flexShrink={0} fontWeight="600">
          {words.stepOf(now, last)} {isByHand && words.byHand}
        </chakra.span>
      </PlayBar>
      <Flex h="206px" flexShrink={0} bg="paper" align="stretch">
        <PlayColumn title={words.clock} width="0.9">
          <chakra.p fontSize="20px" fontWeight="700" data-testid="case-clock">
            {clockWords(scenario.start + clock * 1000, scenario.zone)}
          </chakra.p>
          <Figures
            rows={[
              [words.lasted, timeWords(clock - one.began)],
              [words.waited, timeWords(before?.waited ?? 0)],
              [words.worked, timeWords(before?.worked ?? 0)],
              [words.cost, moneyWords(before?.cost ?? 0, scenario.currency)],
            ]}
          />
        </PlayColumn>
        <PlayColumn title={words.next} width="1.1">
          <NextUp
            world={world}
            next={next}
            clock={clock}
            isCut={one.isCut}
            isOver={standing.outcome === "completed"}
            onPick={pick}
          />
        </PlayColumn>
        <PlayColumn title={words.log} width="2">
          <Log world={world} one={one} now={now} scenario={scenario} onGoTo={goTo} />
        </PlayColumn>
      </Flex>
    </>
  );
}

/** How a case stands after each of its moments, worked out as far as it is looked at. */
function useStandings(world: World | undefined, one: Followed | undefined): (at: number) => Playing {
  const known = useRef<{ world: World; one: Followed; all: Playing[] } | undefined>(undefined);
  return (at) => {
    if (!world || !one) throw new Error("No case is followed.");
    if (known.current?.world !== world || known.current.one !== one)
      known.current = { world, one, all: [standsFirst(world, one)] };
    const { all } = known.current;
    while (all.length <= at) all.push(standsAfter(world, all.at(-1) as Playing, one.moments[all.length - 1] as Moment));
    return all[at] as Playing;
  };
}

/** What comes next, and where the case can go several ways, which. */
function NextUp(props: {
  readonly world: World;
  readonly next: Moment | undefined;
  readonly clock: number;
  readonly isCut: boolean;
  readonly isOver: boolean;
  readonly onPick: (way: number) => void;
}) {
  const { world, next, clock, isCut, isOver, onPick } = props;
  if (!next)
    return (
      <chakra.p color={isOver ? "good" : "attention"}>
        {isOver ? text.walk.completed : isCut ? words.cut : words.stays}
      </chakra.p>
    );
  const { what } = next;
  const ways = what.kind === "act" && what.choice && what.choice.ways.length > 1 ? what.choice.ways : [];
  const after = next.at - clock;
  return (
    <>
      <chakra.p>{momentText(world, next) ?? words.goesOn}</chakra.p>
      {after > 0 && <chakra.p color="quiet">{words.after(timeWords(after))}</chakra.p>}
      {what.kind === "act" && ways.length > 0 && (
        <Box
          as="ul"
          listStyleType="none"
          mt={2}
          data-testid="case-ways"
          aria-label={nameIn(world, what.choice?.node ?? what.act.node)}
        >
          {ways.map((way, at) => (
            <chakra.li key={`${way.does} ${way.flows.join(" ")}`} mb={1}>
              <Button
                size="xs"
                variant="outline"
                bg="paper"
                borderColor="accent"
                color="accent"
                aria-keyshortcuts={at < 9 ? String(at + 1) : undefined}
                onClick={() => onPick(at)}
              >
                {wayWords(world, what.act.node, way)}
                {at < 9 && <Keycap aria-hidden="true">{String(at + 1)}</Keycap>}
              </Button>{" "}
              {way.flows.join() === what.act.flows.join() && way.does === what.act.does && (
                <chakra.span color="quiet" fontSize="12px">
                  {words.byChance}
                </chakra.span>
              )}
            </chakra.li>
          ))}
        </Box>
      )}
    </>
  );
}

/** What happened up to now, with the clock; a line leads back to it. */
function Log(props: {
  readonly world: World;
  readonly one: Followed;
  readonly now: number;
  readonly scenario: Scenario;
  readonly onGoTo: (at: number) => void;
}) {
  const { world, one, now, scenario, onGoTo } = props;
  const end = useRef<HTMLTableRowElement>(null);
  useEffect(() => {
    if (now > 0) end.current?.scrollIntoView({ block: "nearest" });
  }, [now]);
  const lines = one.moments.slice(0, now).flatMap((moment, at) => {
    const said = momentText(world, moment);
    return said === undefined ? [] : [{ at: at + 1, said, moment }];
  });
  if (lines.length === 0) return <chakra.p color="quiet">{text.walk.noLog}</chakra.p>;
  return (
    <chakra.table w="100%" fontSize="13px" data-testid="case-log" css={{ "& td": { paddingBlock: "1px" } }}>
      <tbody>
        {lines.map(({ at, said, moment }) => (
          <tr key={at} ref={end}>
            <chakra.td color="quiet" whiteSpace="nowrap" pe={3} w="130px">
              {clockWords(scenario.start + moment.at * 1000, scenario.zone)}
            </chakra.td>
            <td>
              <chakra.button type="button" textAlign="start" minH="24px" cursor="pointer" onClick={() => onGoTo(at)}>
                {said}
              </chakra.button>
            </td>
            <chakra.td color="quiet" textAlign="end" whiteSpace="nowrap" ps={3}>
              {moneyWords(moment.cost, scenario.currency)}
            </chakra.td>
          </tr>
        ))}
      </tbody>
    </chakra.table>
  );
}

function Figures({ rows }: { readonly rows: readonly (readonly [string, string])[] }) {
  return (
    <chakra.dl mt={2} fontSize="13px" display="grid" gridTemplateColumns="auto 1fr" columnGap={3} rowGap={0.5}>
      {rows.map(([name, value]) => (
        <Box key={name} display="contents">
          <chakra.dt color="quiet">{name}</chakra.dt>
          <dd>{value}</dd>
        </Box>
      ))}
    </chakra.dl>
  );
}

function Small(props: {
  readonly label: string;
  readonly disabled?: boolean;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  const { label, disabled = false, onClick, children } = props;
  return (
    <Button
      size="xs"
      variant="outline"
      bg="paper"
      borderColor="line"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {children}
    </Button>
  );
}
