"use client";
import { memo } from "react";
import { connectionsTouching } from "@/core/commands";
import type { Figure } from "@/core/drawing";
import { type Bounds, type Id, isConnection, isFlowNode, isSubProcess, type Model, type Point } from "@/core/model";
import { type Corner, type Gesture, roomOf } from "./gestures";
import { pathOf } from "./marks/lines";

interface OverlayProps {
  readonly model: Model;
  readonly figures: ReadonlyMap<Id, Figure>;
  readonly selection: readonly Id[];
  readonly gesture: Gesture | null;
  readonly shifted: ReadonlySet<Id> | undefined;
}

const accent = "var(--chakra-colors-accent)";

/** What lies over the drawing while one works on it: ticks, stubs, handles, guides. */
export const Overlay = memo(function Overlay({ model, figures, selection, gesture, shifted }: OverlayProps) {
  const by = gesture?.kind === "move" ? gesture.by : { x: 0, y: 0 };
  return (
    <g>
      {selection.map((id) => {
        const figure = figures.get(id);
        if (!figure) return null;
        const moves = shifted?.has(id) ? by : { x: 0, y: 0 };
        return (
          <g key={id} transform={`translate(${moves.x} ${moves.y})`}>
            {figure.line ? (
              <LineHandles figure={figure} />
            ) : (
              <Ticks
                figure={figure}
                type={model.elements.get(id)?.type ?? ""}
                alone={selection.length === 1 && !gesture}
              />
            )}
          </g>
        );
      })}
      {gesture && <Preview model={model} figures={figures} gesture={gesture} shifted={shifted} />}
    </g>
  );
});

const resizable = (type: string) =>
  isFlowNode(type as never)
    ? isSubProcess(type as never) || type.endsWith("ask") || type === "callActivity"
    : ["participant", "lane", "textAnnotation", "group"].includes(type);

/** Four corner ticks, and where the flow leaves a short dashed stub to pull at. */
function Ticks({ figure, type, alone }: { readonly figure: Figure; readonly type: string; readonly alone: boolean }) {
  const gap = 5;
  const { x, y, width, height } = figure.bounds;
  const left = x - gap;
  const top = y - gap;
  const right = x + width + gap;
  const bottom = y + height + gap;
  const arm = 9;
  const corners: readonly (readonly [Corner, string, number, number])[] = [
    ["nw", `M${left} ${top + arm}V${top}H${left + arm}`, left, top],
    ["ne", `M${right - arm} ${top}H${right}V${top + arm}`, right, top],
    ["sw", `M${left} ${bottom - arm}V${bottom}H${left + arm}`, left, bottom],
    ["se", `M${right - arm} ${bottom}H${right}V${bottom - arm}`, right, bottom],
  ];
  const connects =
    (isFlowNode(type as never) && type !== "endEvent") ||
    ["participant", "textAnnotation", "dataObjectReference", "dataStoreReference", "endEvent"].includes(type);
  const cy = y + height / 2 + (height > 40 ? 14 : 0);
  return (
    <>
      {corners.map(([corner, d, cx, cornerY]) => (
        <g key={corner}>
          <path d={d} fill="none" stroke={accent} strokeWidth="2.2" pointerEvents="none" />
          {alone && resizable(type) && (
            <rect
              data-handle="corner"
              data-of={figure.id}
              data-corner={corner}
              x={cx - 7}
              y={cornerY - 7}
              width="14"
              height="14"
              fill="transparent"
              cursor={corner === "nw" || corner === "se" ? "nwse-resize" : "nesw-resize"}
              pointerEvents="all"
            />
          )}
        </g>
      ))}
      {alone && connects && (
        <g data-handle="connect" data-of={figure.id} data-testid="connect-stub" cursor="crosshair" pointerEvents="all">
          <rect x={x + width} y={cy - 10} width="40" height="20" fill="transparent" />
          <path
            d={`M${x + width + 2} ${cy}H${x + width + 24}`}
            stroke={accent}
            strokeWidth="2"
            strokeDasharray="4 2.5"
          />
          <circle cx={x + width + 28} cy={cy} r="4" fill={accent} />
        </g>
      )}
    </>
  );
}

/** Handles of a selected connection: its two ends, and the middle of each piece. */
function LineHandles({ figure }: { readonly figure: Figure }) {
  const line = figure.line ?? [];
  return (
    <>
      <path d={pathOf(line)} fill="none" stroke={accent} strokeWidth="2.2" pointerEvents="none" />
      {line.slice(1).map((b, segment) => {
        const a = line[segment] as Point;
        const level = Math.abs(a.y - b.y) < 0.5;
        if (Math.abs(a.x - b.x) + Math.abs(a.y - b.y) < 24) return null;
        return (
          <rect
            key={segment}
            data-handle="segment"
            data-of={figure.id}
            data-segment={segment}
            x={(a.x + b.x) / 2 - (level ? 7 : 4)}
            y={(a.y + b.y) / 2 - (level ? 4 : 7)}
            width={level ? 14 : 8}
            height={level ? 8 : 14}
            rx="3"
            fill="var(--chakra-colors-paper)"
            stroke={accent}
            strokeWidth="1.6"
            cursor={level ? "ns-resize" : "ew-resize"}
            pointerEvents="all"
          />
        );
      })}
      {(["source", "target"] as const).map((end) => {
        const point = end === "source" ? line[0] : line.at(-1);
        return (
          point && (
            <circle
              key={end}
              data-handle="end"
              data-of={figure.id}
              data-end={end}
              cx={point.x}
              cy={point.y}
              r="6"
              fill="var(--chakra-colors-paper)"
              stroke={accent}
              strokeWidth="2"
              cursor="crosshair"
              pointerEvents="all"
            />
          )
        );
      })}
    </>
  );
}

function Preview({
  model,
  figures,
  gesture,
  shifted,
}: {
  readonly model: Model;
  readonly figures: ReadonlyMap<Id, Figure>;
  readonly gesture: Gesture;
  readonly shifted: ReadonlySet<Id> | undefined;
}) {
  switch (gesture.kind) {
    case "move":
      return (
        <g pointerEvents="none">
          {gesture.guides.map((guide, at) => (
            <path key={at} d={pathOf([guide.from, guide.to])} stroke={accent} strokeWidth="1" strokeDasharray="3 3" />
          ))}
          {shifted &&
            [...connectionsTouching(model, shifted)].map((id) => (
              <ElasticLine key={id} figure={figures.get(id)} model={model} shifted={shifted} by={gesture.by} />
            ))}
        </g>
      );
    case "connect":
      return (
        <g pointerEvents="none">
          <path
            d={pathOf([gesture.start, gesture.to])}
            stroke={gesture.refusal ? "var(--chakra-colors-trouble)" : accent}
            strokeWidth="1.8"
            strokeDasharray="5 3"
            fill="none"
          />
          {gesture.over && <Outline bounds={figures.get(gesture.over)?.bounds} bad={gesture.refusal !== undefined} />}
        </g>
      );
    case "reattach":
      return (
        <g pointerEvents="none">
          <path
            d={pathOf([gesture.fixed, gesture.to])}
            stroke={accent}
            strokeWidth="1.8"
            strokeDasharray="5 3"
            fill="none"
          />
          {gesture.over && <Outline bounds={figures.get(gesture.over)?.bounds} bad={false} />}
        </g>
      );
    case "resize":
      return <Outline bounds={gesture.bounds} bad={false} />;
    case "bend":
      return <path d={pathOf(gesture.points)} stroke={accent} strokeWidth="1.8" fill="none" pointerEvents="none" />;
    case "label":
      return (
        <Outline
          bounds={{ ...gesture.start, x: gesture.start.x + gesture.by.x, y: gesture.start.y + gesture.by.y }}
          bad={false}
        />
      );
    case "marquee": {
      const { from, to } = gesture;
      return (
        <rect
          x={Math.min(from.x, to.x)}
          y={Math.min(from.y, to.y)}
          width={Math.abs(from.x - to.x)}
          height={Math.abs(from.y - to.y)}
          fill="var(--chakra-colors-accent)"
          fillOpacity="0.07"
          stroke={accent}
          strokeDasharray="4 3"
          pointerEvents="none"
        />
      );
    }
    case "room": {
      const { direction, line, by } = roomOf(gesture.from, gesture.to);
      const far = 32_000;
      const at = (value: number) => (direction === "right" ? `M${value} ${-far}V${far}` : `M${-far} ${value}H${far}`);
      return (
        <g pointerEvents="none">
          {direction === "right" ? (
            <rect x={line} y={-far} width={by} height={2 * far} fill={accent} fillOpacity="0.07" />
          ) : (
            <rect x={-far} y={line} width={2 * far} height={by} fill={accent} fillOpacity="0.07" />
          )}
          <path d={at(line)} stroke={accent} strokeWidth="1.2" strokeDasharray="5 3" />
          <path d={at(line + by)} stroke={accent} strokeWidth="1.6" />
        </g>
      );
    }
    case "place":
      return (
        <g pointerEvents="none">
          <rect
            x={gesture.to.x - 56}
            y={gesture.to.y - 32}
            width="112"
            height="64"
            rx="8"
            fill="none"
            stroke={accent}
            strokeWidth="1.6"
            strokeDasharray="5 3"
          />
          {gesture.onFlow && figures.get(gesture.onFlow)?.line && (
            <path d={pathOf(figures.get(gesture.onFlow)?.line ?? [])} fill="none" stroke={accent} strokeWidth="3" />
          )}
          {gesture.onEdge && <Outline bounds={figures.get(gesture.onEdge)?.bounds} bad={false} />}
        </g>
      );
  }
}

function Outline({ bounds, bad }: { readonly bounds: Bounds | undefined; readonly bad: boolean }) {
  if (!bounds) return null;
  return (
    <rect
      x={bounds.x - 4}
      y={bounds.y - 4}
      width={bounds.width + 8}
      height={bounds.height + 8}
      rx="8"
      fill="none"
      stroke={bad ? "var(--chakra-colors-trouble)" : accent}
      strokeWidth="2"
      strokeDasharray={bad ? "4 3" : undefined}
      pointerEvents="none"
    />
  );
}

/** A connection of something under way: its end goes along, its real course is found when the gesture ends. */
function ElasticLine({
  figure,
  model,
  shifted,
  by,
}: {
  readonly figure: Figure | undefined;
  readonly model: Model;
  readonly shifted: ReadonlySet<Id>;
  readonly by: Point;
}) {
  const element = figure && model.elements.get(figure.id);
  if (!figure?.line || !element || !isConnection(element.type)) return null;
  const source =
    shifted.has(String(element.sourceRef)) ||
    (element.type === "dataOutputAssociation" && shifted.has(element.parent ?? ""));
  const target =
    shifted.has(String(element.targetRef)) ||
    (element.type === "dataInputAssociation" && shifted.has(element.parent ?? ""));
  const first = figure.line[0] as Point;
  const last = figure.line.at(-1) as Point;
  const move = (point: Point, moves: boolean) => (moves ? { x: point.x + by.x, y: point.y + by.y } : point);
  return (
    <path
      d={pathOf([move(first, source), move(last, target)])}
      stroke={accent}
      strokeWidth="1.2"
      strokeDasharray="4 3"
      fill="none"
    />
  );
}
