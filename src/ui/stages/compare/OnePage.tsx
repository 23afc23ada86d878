"use client";
import { Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { type ChangeGroup, type OnePicture, onePicture } from "@/core/compare";
import type { Scene } from "@/core/drawing";
import { boundsAround } from "@/core/layout";
import { type Said, term } from "@/core/messages";
import type { Id } from "@/core/model";
import type { Mark } from "../../canvas/marks/mark";
import { pageWith, useScene } from "../../canvas/useScene";
import type { Viewport } from "../../canvas/useViewport";
import { text, worded } from "../../messages";
import { ComparedPage } from "./ComparedPage";
import { type Shown, useCompare } from "./compareStore";
import { currentMarks, pennedMark, tagMark } from "./marks";
import type { Compared } from "./useComparison";

/** Both sides drawn as one, with a switch for all changes and for each. */
export function OnePage({
  compared,
  group,
  onPick,
}: {
  readonly compared: Compared;
  readonly group: ChangeGroup | undefined;
  readonly onPick: (side: "from" | "to", id: Id | undefined) => void;
}) {
  const { from, to, pairs, groups } = compared;
  const shown = useCompare((state) => state.shown);
  const shownOf = useCompare((state) => state.shownOf);
  const picture = useMemo(() => onePicture(from.model, to.model, pairs, groups), [from, to, pairs, groups]);
  const known = useMemo(() => knownOf(picture, compared), [picture, compared]);
  const page = useMemo(() => pageWith(picture.model, focusOf(picture, group)), [picture, group]);
  const newer = useScene(picture.model, page);
  const older = useScene(picture.older, page);
  const { scene, marks } = useMemo(() => {
    const modeOf = (id: Id): Shown => {
      const key = known.get(id)?.key;
      return (key === undefined ? undefined : shownOf.get(key)) ?? shown;
    };
    return drawnAs(picture, newer, older, known, modeOf, group);
  }, [picture, newer, older, known, shown, shownOf, group]);
  const view = useRef<Viewport | null>(null);
  const onViewport = useCallback((viewport: Viewport) => {
    view.current = viewport;
  }, []);
  useEffect(() => view.current?.open(newer.bounds), [newer]);
  useEffect(() => {
    const ids = new Set(focusOf(picture, group));
    const shapes = newer.figures.filter((figure) => ids.has(figure.id) && !figure.line);
    const all = boundsAround(shapes.map((figure) => figure.bounds));
    if (all) view.current?.show(all);
  }, [picture, group, newer]);
  return (
    <Flex flex="1" minH={0} data-testid="one-picture">
      <ComparedPage
        scene={scene}
        marks={marks}
        label={text.compare.onePictureOf(from.title, to.title)}
        onPick={(id) => {
          const origin =
            id && [...picture.ids].find(([, own]) => own === id && picture.parts.get(id)?.of === "from")?.[0];
          if (origin) onPick("from", origin);
          else onPick("to", id === undefined ? undefined : (picture.ghosts.get(id) ?? id));
        }}
        onViewport={onViewport}
        hasFit
      />
    </Flex>
  );
}

const none = term("");

interface Known {
  readonly key: string;
  readonly tag: Said;
}

/** The change each figure is part of, and what its label says. */
function knownOf(picture: OnePicture, { marks }: Compared): ReadonlyMap<Id, Known> {
  const known = new Map<Id, Known>();
  for (const [id, { key, tag, kind }] of marks.from) {
    const own = picture.ids.get(id);
    if (own !== undefined) known.set(own, { key, tag: kind === "gone" ? tag : none });
  }
  for (const [id, { key, tag }] of marks.to) known.set(id, { key, tag });
  for (const [id, { key }] of picture.parts) if (key !== undefined && !known.has(id)) known.set(id, { key, tag: none });
  return known;
}

const focusOf = (picture: OnePicture, group: ChangeGroup | undefined): Id[] =>
  group
    ? [
        ...group.to,
        ...group.from.flatMap((id) => picture.ids.get(id) ?? []),
        ...[...picture.ghosts].flatMap(([ghost, id]) => (group.to.includes(id) ? [ghost] : [])),
      ]
    : [];

function drawnAs(
  picture: OnePicture,
  newer: Scene,
  older: Scene,
  known: ReadonlyMap<Id, Known>,
  modeOf: (id: Id) => Shown,
  group: ChangeGroup | undefined,
): { scene: Scene; marks: Mark[] } {
  const before = new Map(older.figures.map((figure) => [figure.id, figure]));
  const marks: Mark[] = [];
  const figures = newer.figures.flatMap((figure) => {
    const { id } = figure;
    const mode = modeOf(id);
    const part = picture.parts.get(id);
    if (part && !part.seen[mode]) return [];
    const about = known.get(id);
    const side = (mode === "both" ? part?.of : mode) === "from" ? "from" : "to";
    if (mode === "both" && (part?.of === "from" || part?.of === "to")) marks.push(pennedMark(id, part.of));
    if (mode === "both" && about && about.tag.text !== "" && !figure.line)
      marks.push(tagMark(id, worded(about.tag), side));
    if (about !== undefined && about.key === group?.key) marks.push(...currentMarks(id, side));
    return [mode === "from" ? (before.get(id) ?? figure) : figure];
  });
  for (const [ghost, to] of picture.ghosts)
    if (modeOf(ghost) === "both" && modeOf(to) === "both") marks.push({ on: ghost, means: "movedTo", as: "arrow", to });
  return { scene: { figures, bounds: newer.bounds }, marks };
}
