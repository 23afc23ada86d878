"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo, useRef } from "react";
import type { ChangeGroup } from "@/core/compare";
import type { Scene } from "@/core/drawing";
import { boundsAround } from "@/core/layout";
import { type Bounds, type Id, isConnection, type Model } from "@/core/model";
import { pageWith, useScene } from "../../canvas/useScene";
import type { Viewport } from "../../canvas/useViewport";
import { text } from "../../messages";
import { ComparedPage } from "./ComparedPage";
import { useCompare } from "./compareStore";
import { sideMarks } from "./marks";
import type { Compared } from "./useComparison";

type Hand = "from" | "to";

/** Both sides in two frames that move together; what is chosen on one is shown on the other. */
export function TwoPages({
  compared,
  group,
  onPick,
}: {
  readonly compared: Compared;
  readonly group: ChangeGroup | undefined;
  readonly onPick: (side: Hand, id: Id | undefined) => void;
}) {
  const { from, to, pairs, marks } = compared;
  const view = useCompare((state) => state.view);
  const picked = useCompare((state) => state.picked);
  const match = useMemo(() => matched(picked, pairs), [picked, pairs]);
  const focus = useMemo(
    () => ({
      from: match ? [match.from].filter((id) => id !== undefined) : (group?.from ?? []),
      to: match ? [match.to].filter((id) => id !== undefined) : (group?.to ?? []),
    }),
    [match, group],
  );
  const scenes = {
    from: useScene(
      from.model,
      useMemo(() => pageWith(from.model, focus.from), [from.model, focus]),
    ),
    to: useScene(
      to.model,
      useMemo(() => pageWith(to.model, focus.to), [to.model, focus]),
    ),
  };
  const marked = {
    from: useMemo(
      () => sideMarks("from", marks.from, group, focus.from, shapesIn(from.model)),
      [marks, group, focus, from],
    ),
    to: useMemo(() => sideMarks("to", marks.to, group, focus.to, shapesIn(to.model)), [marks, group, focus, to]),
  };
  const lock = useLock(scenes, focus);
  return (
    <Flex flex="1" minH={0} gap={3} px={5} py={3} direction={view === "stacked" ? "column" : "row"}>
      {(["from", "to"] as const).map((hand) => (
        <Flex
          key={hand}
          as="section"
          aria-label={compared[hand].title}
          data-testid={`side-${hand}`}
          direction="column"
          flex="1"
          minW={0}
          minH={0}
          borderWidth="1px"
          borderColor="line"
          borderRadius="6px"
          overflow="hidden"
          onPointerEnter={() => lock.lead(hand)}
          onFocus={() => lock.lead(hand)}
        >
          <Flex
            fontSize="12px"
            gap={3}
            px={3}
            py={0.5}
            bg="paper"
            borderBottomWidth="1px"
            borderColor="line"
            borderBottomStyle={hand === "from" ? "dashed" : "double"}
          >
            <chakra.h2 fontWeight="600" color={hand === "from" ? "pencil" : "accent"}>
              {compared[hand].title}
            </chakra.h2>
            <chakra.span color="quiet">{text.compare.dropHere}</chakra.span>
          </Flex>
          <ComparedPage
            scene={scenes[hand]}
            marks={marked[hand]}
            label={compared[hand].title}
            onPick={(id) => onPick(hand, id)}
            onViewport={lock.take[hand]}
            hasFit={hand === "to"}
          />
        </Flex>
      ))}
    </Flex>
  );
}

const shapesIn = (model: Model) => (id: Id) => !isConnection(model.elements.get(id)?.type);

function matched(picked: { readonly side: Hand; readonly id: Id } | null, pairs: ReadonlyMap<Id, Id>) {
  if (!picked) return undefined;
  if (picked.side === "from") return { from: picked.id, to: pairs.get(picked.id) };
  return { from: [...pairs].find(([, id]) => id === picked.id)?.[0], to: picked.id };
}

/** Two viewports that go together: the one that is moved leads, and the other keeps what is looked at in the same place. */
function useLock(scenes: { readonly [hand in Hand]: Scene }, focus: { readonly [hand in Hand]: readonly Id[] }) {
  const views = useRef<{ [hand in Hand]?: Viewport }>({});
  const leader = useRef<Hand>("to");
  /** How far what is looked at on the new side lies from where it is on the old one, on the page. */
  const shift = useRef({ x: 0, y: 0 });
  const follow = useCallback((hand: Hand) => {
    if (leader.current !== hand) return;
    const other = hand === "from" ? "to" : "from";
    const [mine, theirs] = [views.current[hand], views.current[other]];
    if (!mine || !theirs) return;
    const { k, x, y } = mine.transform.current;
    const sign = hand === "from" ? -1 : 1;
    theirs.put({ k, x: x + sign * shift.current.x * k, y: y + sign * shift.current.y * k });
  }, []);
  const take = useMemo(
    () => ({
      from: (viewport: Viewport) => {
        views.current.from = viewport;
      },
      to: (viewport: Viewport) => {
        views.current.to = viewport;
      },
    }),
    [],
  );
  useEffect(() => {
    const ends = (["from", "to"] as const).map((hand) => views.current[hand]?.onMove(() => follow(hand)));
    return () => {
      for (const end of ends) end?.();
    };
  }, [follow]);
  const [first, second] = [scenes.from, scenes.to];
  useEffect(() => {
    leader.current = "to";
    // Both go together, so what is fitted is what both take up.
    const drawn = [first.bounds, second.bounds].filter(({ width }) => width > 0);
    const all = boundsAround(drawn);
    if (all) views.current.to?.fit(all);
  }, [first, second]);
  useEffect(() => {
    const box = { from: boundsOf(first, focus.from), to: boundsOf(second, focus.to) };
    if (box.from && box.to) shift.current = { x: box.to.x - box.from.x, y: box.to.y - box.from.y };
    leader.current = box.to ? "to" : "from";
    const target = box[leader.current];
    if (!target) return;
    follow(leader.current);
    views.current[leader.current]?.show(target);
  }, [first, second, focus, follow]);
  const lead = useCallback((hand: Hand) => {
    leader.current = hand;
  }, []);
  return { take, lead };
}

/** Where the first of some elements that is a shape is; else around all of them. */
function boundsOf(scene: Scene, ids: readonly Id[]): Bounds | undefined {
  const figures = ids.flatMap((id) => scene.figures.filter((figure) => figure.id === id));
  return figures.find((figure) => !figure.line)?.bounds ?? boundsAround(figures.map((figure) => figure.bounds));
}
