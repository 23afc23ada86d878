import { useEffect, useMemo } from "react";
import type { Here } from "@/contract/presence";
import { type Figure, type Primitive, roundedRect, type Scene, textWidth } from "@/core/drawing";
import { term } from "@/core/messages";
import type { CanvasHandle } from "../../canvas/Canvas";
import type { Mark } from "../../canvas/marks/mark";
import { text } from "../../messages";
import { hueOf } from "../../version/presence/hues";
import { usePresence } from "../../version/presence/store";

const size = 10.5;
const high = 15;

/** What others have chosen on a page, each in their hue, with their name. */
export function othersMarks(scene: Scene, others: readonly Here[]): readonly Mark[] {
  const figures = new Map(scene.figures.map((figure) => [figure.id, figure]));
  return others.flatMap(({ window, member, name, selection }) =>
    selection.flatMap((id): Mark[] => {
      const figure = figures.get(id);
      return figure
        ? [{ on: id, means: "othersChoice", as: "drawn", figure: drawnFor(figure, window, member, name) }]
        : [];
    }),
  );
}

function drawnFor({ id, bounds, line }: Figure, window: string, member: string, name: string): Figure {
  const hue = hueOf(member);
  const { x, y, width, height } = bounds;
  const wide = textWidth(name, size, 600) + 10;
  const tag = { x: x + width + 9 - wide, y: y + height + 3, width: wide, height: high };
  const around: Primitive = {
    ...{ kind: "path", d: roundedRect({ x: x - 9, y: y - 9, width: width + 18, height: height + 18 }, 12) },
    ...{ fill: "none", stroke: "ink", hue, width: 1.6, dash: "1.5 3" },
  };
  const label: Primitive = { kind: "path", d: roundedRect(tag, 4), fill: "ink", stroke: "none", hue, width: 0 };
  const words: Primitive = {
    ...{ kind: "text", x: tag.x + wide / 2, y: tag.y + 11, text: name, size, weight: 600, anchor: "middle" },
    tone: "paper",
  };
  return {
    ...{ id: `other ${window} ${id}`, type: "other", layer: 9, bounds, title: term(text.presence.chosen(name)) },
    primitives: [...(line ? [] : [around]), label, words],
  };
}

/** Tells others what is in view here, shows what they have chosen, and goes where the one is who is followed. */
export function useOthersHere(canvas: React.RefObject<CanvasHandle | null>, diagram: string, scene: Scene) {
  const others = usePresence((state) => state.others);
  const following = usePresence((state) => state.following);
  const { set } = usePresence.getState();
  const followed = following === null ? undefined : others.get(following);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const end = canvas.current?.viewport.onMove((view) => {
      clearTimeout(timer);
      timer = setTimeout(() => set({ view: view.width > 0 && view.height > 0 ? view : null }), 200);
    });
    return () => {
      clearTimeout(timer);
      end?.();
      set({ view: null });
    };
  }, [canvas, set]);
  const view = followed?.view;
  const page = followed?.page;
  const at = view ? JSON.stringify(view) : "";
  useEffect(() => {
    if (at === "" || (page !== undefined && page !== null && page !== diagram)) return;
    const { current } = canvas;
    return current?.viewport.whenFree(() => current.viewport.fit(JSON.parse(at)));
  }, [at, page, diagram, canvas]);
  const marks = useMemo(() => othersMarks(scene, [...others.values()]), [scene, others]);
  return { marks, followed };
}
