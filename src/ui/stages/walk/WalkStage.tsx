"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type ReactNode, useCallback, useEffect, useMemo, useRef } from "react";
import { flowNodesIn, type Id, nameOf, processesOf } from "@/core/model";
import { type Playing, standingAt, type World, worldWith } from "@/core/tokens";
import { EmptyState, LoadingPage } from "../../controls/states";
import { text } from "../../messages";
import { useWalks } from "../../version/walks";
import { DataColumn } from "./DataColumn";
import { KeptColumn } from "./KeptColumn";
import { LogColumn } from "./LogColumn";
import { NowColumn } from "./NowColumn";
import { PaceBar } from "./PaceBar";
import { useStanding } from "./useStanding";
import { WalkPage } from "./WalkPage";
import { paces, useWalk } from "./walkStore";

/** The stage where one case is played: the page with its tokens, the controls, and under them where it stands and where it was. */
export function WalkStage() {
  const { settled, called } = useWalks();
  const together = useWalk((state) => state.together);
  const world = useMemo(() => called && worldWith(settled, called, together), [settled, called, together]);
  const { begin, stepOn, act, goTo, set, toggleBreak, process, world: played, isPlaying, pace, at, past } = useWalk();
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
  const presses = useRef(standing?.presses);
  presses.current = standing?.presses;
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
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if ((event.target as HTMLElement).closest("input, textarea, select, [role=dialog]")) return;
      const key = event.key.toLowerCase();
      if (key === "arrowright") stepOn();
      else if (key === "arrowleft") goTo(useWalk.getState().at - 1);
      else if (key === "p") set({ isPlaying: !useWalk.getState().isPlaying });
      else if (key === "home") goTo(0);
      else if (/^[1-9]$/.test(key)) {
        const press = presses.current?.[Number(key) - 1];
        if (press) act(press);
      } else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [stepOn, goTo, set, act]);
  if (world && processes.length === 0) return <EmptyState>{text.walk.nothing}</EmptyState>;
  if (!standing || !process || played !== world) return <LoadingPage label={text.shell.loading} />;
  return (
    <Flex direction="column" flex="1" minH={0} css={{ "& button": { fontSize: "13px" } }}>
      <chakra.h1 srOnly>{text.stages.walk}</chakra.h1>
      <WalkPage standing={standing} onPick={pick} />
      <PaceBar
        standing={standing}
        processes={processes}
        onBegin={(next, start) => begin(standing.world, next, start)}
        onStep={stepOn}
      />
      <Flex h="236px" flexShrink={0} bg="paper" align="stretch">
        <Column title={text.walk.now} width="1.35">
          <NowColumn standing={standing} />
        </Column>
        <Column title={text.walk.log} width="1.1">
          <LogColumn standing={standing} />
        </Column>
        <Column title={text.walk.data} width="0.75">
          <DataColumn world={standing.world} process={process} />
        </Column>
        <Column title={text.walk.kept} width="1.1">
          <KeptColumn standing={standing} process={process} />
        </Column>
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

function Column({
  title,
  width,
  children,
}: {
  readonly title: string;
  readonly width: string;
  readonly children: ReactNode;
}) {
  return (
    <Flex
      as="section"
      direction="column"
      flex={`${width} 1 0`}
      minW={0}
      px={4}
      py={2.5}
      borderInlineEndWidth="1px"
      borderColor="line"
      _last={{ borderInlineEndWidth: 0 }}
      aria-label={title}
    >
      <chakra.h2 fontSize="12px" color="quiet" fontWeight="600" mb={1.5}>
        {title}
      </chakra.h2>
      <Box flex="1" minH={0} overflow="auto">
        {children}
      </Box>
    </Flex>
  );
}
