"use client";
import { memo, useEffect, useMemo, useRef } from "react";
import { poolBand, type Scene } from "@/core/drawing";
import { type Bounds, type Id, type Model, nameOf, shapeOn } from "@/core/model";
import type { Viewport } from "./useViewport";

interface Band {
  readonly id: Id;
  readonly name: string;
  readonly bounds: Bounds;
  /** How far it stands inside its pool: bands of lanes stand beside that of the pool. */
  readonly inset: number;
  readonly isPool: boolean;
  /** The colour of the role that a lane stands for. */
  readonly hue: string | undefined;
}

/** Pools and lanes that lie level, whose names stand at their left. */
function bandsOf(model: Model, diagram: Id, scene: Scene): readonly Band[] {
  const held = scene.figures.filter(({ type }) => type === "participant" || type === "lane");
  const pools = held.filter(({ type }) => type === "participant");
  return held.flatMap(({ id, type, bounds, primitives }): Band[] => {
    const name = nameOf(model, id);
    if (name === "" || shapeOn(model, diagram, id)?.isHorizontal === false) return [];
    if (type === "participant" && model.elements.get(id)?.processRef === undefined) return [];
    const pool = pools.find(
      (other) => other.bounds.y <= bounds.y && other.bounds.y + other.bounds.height >= bounds.y + bounds.height,
    );
    const ribbon = primitives.find((one) => one.kind === "ribbon");
    const inset = pool ? bounds.x - pool.bounds.x : 0;
    return [{ id, name, bounds, inset, isPool: type === "participant", hue: ribbon?.hue }];
  });
}

/** The part of a band that stands in for it while it is out of sight or cut; undefined where it is seen whole, or not at all. */
export function standIn({ bounds, inset }: Pick<Band, "bounds" | "inset">, view: Bounds): Bounds | undefined {
  const right = bounds.x + bounds.width;
  const top = Math.max(bounds.y, view.y);
  const bottom = Math.min(bounds.y + bounds.height, view.y + view.height);
  const left = Math.max(bounds.x, view.x + inset);
  const isWhole = left === bounds.x && top === bounds.y && bottom === bounds.y + bounds.height;
  if (isWhole || bottom - top < poolBand || right - left < 2 * poolBand || left > view.x + view.width) return undefined;
  return { x: left, y: top, width: poolBand, height: bottom - top };
}

/** Whose lane one looks at stays in sight: names of pools and lanes whose band is moved out of the view stand at its edge. */
export const BandNames = memo(function BandNames(props: {
  readonly model: Model;
  readonly diagram: Id;
  readonly scene: Scene;
  readonly viewport: Viewport;
}) {
  const { model, diagram, scene, viewport } = props;
  const holder = useRef<HTMLDivElement>(null);
  const bands = useMemo(() => bandsOf(model, diagram, scene), [model, diagram, scene]);
  useEffect(
    () =>
      viewport.onMove((view) => {
        const { k } = viewport.transform.current;
        bands.forEach((band, at) => {
          const shown = holder.current?.children[at] as HTMLElement | undefined;
          if (!shown) return;
          const place = standIn(band, view);
          shown.style.display = place ? "flex" : "none";
          if (!place) return;
          // A lane's ribbon, in the colour of its role, stays to be seen beside it.
          const across = Math.max((band.isPool ? poolBand : poolBand - 2) * k, 18);
          shown.style.transform = `translate(${(place.x - view.x) * k}px, ${(place.y - view.y) * k}px)`;
          shown.style.width = `${across}px`;
          shown.style.height = `${place.height * k}px`;
          shown.style.fontSize = `${Math.max(11, 13 * k)}px`;
        });
      }),
    [bands, viewport],
  );
  return (
    <div ref={holder} aria-hidden style={{ position: "absolute", inset: 0, pointerEvents: "none", overflow: "clip" }}>
      {bands.map(({ id, name, isPool, hue }) => (
        <div
          key={id}
          data-band={id}
          style={{
            position: "absolute",
            left: 0,
            top: 0,
            display: "none",
            alignItems: "center",
            justifyContent: "center",
            background: "var(--chakra-colors-paper)",
            borderInlineEnd: hue ? `4px solid ${hue}` : "1px solid var(--chakra-colors-ink)",
            fontWeight: isPool ? 600 : 400,
          }}
        >
          <span
            style={{
              writingMode: "vertical-rl",
              transform: "rotate(180deg)",
              maxHeight: "100%",
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {name}
          </span>
        </div>
      ))}
    </div>
  );
});
