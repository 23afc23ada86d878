"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { flowNodesIn, type Id, nameOf, processesOf } from "@/core/model";
import { type Playing, standingAt, type World, worldWith } from "@/core/tokens";
import { paces } from "../../canvas/playing/PlayButtons";
import { PlayedPage } from "../../canvas/playing/PlayedPage";
import { PlayColumn } from "../../canvas/playing/PlayFrame";
import { EmptyState, LoadingPage } from "../../controls/states";
import { useKeys } from "../../controls/useKeys";
import { text } from "../../messages";
import { useWalks } from "../../version/walks";
import { DataColumn } from "./DataColumn";
import { KeptColumn } from "./KeptColumn";
import { LogColumn } from "./LogColumn";
import { NowColumn } from "./NowColumn";
import { PaceBar } from "./PaceBar";
import { useStanding } from "./useStanding";
import { useWalk } from "./walkStore";

/** The stage where one case is played: the page with its tokens, the controls, and under them where it stands and where it was. */
export function WalkStage() {
  const { settled, called, decisions } = useWalks();
  const together = useWalk((state) => state.together);
  const world = useMemo(
    () => called && decisions && worldWith(settled, called, together, decisions),
    [settled, called, together, decisions],
  );
  const {
    begin,
    stepOn,
    act,
    goTo,
    set,
    toggleBreak,
    breaks,
    process,
    world: played,
    isPlaying,
    pace,
    at,
    past,
  } = useWalk();
  const processes = useMemo(
    () =>
      world
        ? processesOf(world.model)
            .filter((one) => flowNodesIn(world.model, one.id).length > 0)
            .map((one) => ({ id: one.id, name: poolName(world.model, one.id) }))
        : [],
    [world],
  );
  // Another model is another walk: what was played on the old one says nothing about it.
  useEffect(() => {
    if (!world || played === world) return;
    const still = processes.find((one) => one.id === process) ?? processes[0];
    if (still) begin(world, still.id, null);
  }, [world, played, process, processes, begin]);
  const standing = useStanding();
  const places = useRef(standing?.places);
  places.current = standing?.places;
  useEffect(() => {
    if (!isPlaying) return;
    const timer = setTimeout(() => {
      const before = nodesStoodAt(useWalk.getState());
      const goesOn = stepOn();
      const state = useWalk.getState();
      const hasArrived = [...nodesStoodAt(state)].some((node) => state.breaks.has(node) && !before.has(node));
      if (!goesOn || hasArrived) set({ isPlaying: false });
    }, paces[pace]);
    return () => clearTimeout(timer);
  }, [isPlaying, pace, at, past.length, stepOn, set]);
  const pick = useCallback(
    (element: Id) => {
      const all = places.current ?? [];
      const acts = all.flatMap((place) => place.acts);
      const way = acts.filter((one) => one.flows.length === 1 && one.flows[0] === element);
      const own = all.filter((place) => place.node === element).flatMap((place) => place.acts);
      const fires = all.flatMap((place) => place.fires).filter((one) => one.node === element);
      const only = way[0] ?? (own.length === 1 ? own[0] : undefined) ?? fires[0];
      if (only) act(only);
      else if (!all.some((place) => place.node === element)) toggleBreak(element);
    },
    [act, toggleBreak],
  );
  useKeys({
    arrowright: stepOn,
    arrowleft: () => goTo(at - 1),
    home: () => goTo(0),
    p: () => set({ isPlaying: !isPlaying }),
    ...Object.fromEntries(
      (standing?.presses ?? []).slice(0, 9).map((press, number) => [String(number + 1), () => act(press)]),
    ),
  });
  if (world && processes.length === 0) return <EmptyState>{text.walk.nothing}</EmptyState>;
  if (!standing || !process || played !== world) return <LoadingPage label={text.shell.loading} />;
  return (
    <Flex direction="column" flex="1" minH={0} css={{ "& button": { fontSize: "13px" } }}>
      <chakra.h1 srOnly>{text.stages.walk}</chakra.h1>
      <PlayedPage standing={standing} breaks={breaks} onPick={pick} />
      <PaceBar
        standing={standing}
        processes={processes}
        onBegin={(next, start) => begin(standing.world, next, start)}
        onStep={stepOn}
      />
      <Flex h="236px" flexShrink={0} bg="paper" align="stretch">
        <PlayColumn title={text.walk.now} width="1.35">
          <NowColumn standing={standing} />
        </PlayColumn>
        <PlayColumn title={text.walk.log} width="1.1">
          <LogColumn standing={standing} />
        </PlayColumn>
        <PlayColumn title={text.walk.data} width="0.85">
          <DataColumn world={standing.world} process={process} places={standing.places} />
        </PlayColumn>
        <PlayColumn title={text.walk.kept} width="1.1">
          <KeptColumn standing={standing} process={process} />
        </PlayColumn>
      </Flex>
    </Flex>
  );
}

function nodesStoodAt({
  world,
  past,
  at,
}: {
  readonly world: World | null;
  readonly past: readonly Playing[];
  readonly at: number;
}): ReadonlySet<Id> {
  const now = past[at];
  return new Set(world && now ? standingAt(world, now.state).map(({ node }) => node) : []);
}

/** A process goes by its pool's name where it has one. */
function poolName(model: Parameters<typeof processesOf>[0], process: Id): string {
  const pool = [...model.elements].find((one) => one.type === "participant" && one.processRef === process);
  return (pool && nameOf(model, pool.id)) || nameOf(model, process) || process;
}
