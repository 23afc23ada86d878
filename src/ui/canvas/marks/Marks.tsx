"use client";
import { memo } from "react";
import type { Figure } from "@/core/drawing";
import type { Id } from "@/core/model";
import { worded } from "../../messages";
import { PrimitiveView } from "../FigureView";
import { Arrow } from "./Arrow";
import { LabelView } from "./LabelView";
import { pathOf } from "./lines";
import { Motion } from "./Motion";
import type { Mark } from "./mark";
import { SignView } from "./SignView";
import { Token } from "./Token";
import { tones } from "./tones";

/** Ribbons lie lowest and signs on top, whatever order they were given in. */
const order: readonly Mark["as"][] = [
  "ribbon",
  "dashes",
  "frame",
  "drawn",
  "arrow",
  "label",
  "sign",
  "token",
  "motion",
];

/** Everything that is marked on a drawing, laid over its figures. */
export const Marks = memo(function Marks({
  marks,
  figures,
}: {
  readonly marks: readonly Mark[];
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  return (
    <g pointerEvents="none" data-testid="marks">
      {order.map((as) =>
        marks.map((mark) => {
          if (mark.as !== as) return null;
          const figure = figures.get(mark.on);
          return (
            figure && (
              <g
                key={`${mark.means} ${mark.on} ${"text" in mark ? mark.text : ""}`}
                data-means={mark.means}
                data-on={mark.on}
              >
                <MarkView mark={mark} figure={figure} figures={reachesOut(mark) ? figures : none} />
              </g>
            )
          );
        }),
      )}
    </g>
  );
});

/** Whether a mark depends on more than the figure it is on. */
const reachesOut = ({ as }: Mark) => as === "arrow" || as === "label";
const none: ReadonlyMap<Id, Figure> = new Map();

/** One mark. Where neither it nor what it looks at changed it is not drawn again: a large page has hundreds. */
const MarkView = memo(function MarkView({
  mark,
  figure,
  figures,
}: {
  readonly mark: Mark;
  readonly figure: Figure;
  readonly figures: ReadonlyMap<Id, Figure>;
}) {
  const { line, bounds } = figure;
  switch (mark.as) {
    case "ribbon":
      return (
        line && (
          <path
            d={pathOf(line)}
            fill="none"
            stroke={tones[mark.tone].colour}
            strokeWidth={7}
            strokeOpacity={0.35}
            strokeLinejoin="round"
          />
        )
      );
    case "dashes":
      return (
        line && (
          <path d={pathOf(line)} fill="none" stroke={tones.attention.colour} strokeWidth={2.5} strokeDasharray="6 4" />
        )
      );
    case "frame":
      return line ? null : (
        <rect
          x={bounds.x - 6}
          y={bounds.y - 6}
          width={bounds.width + 12}
          height={bounds.height + 12}
          rx="11"
          fill="none"
          stroke={tones[mark.tone].colour}
          strokeWidth={mark.isThin ? 1.6 : 2.6}
          strokeDasharray={mark.isThin ? "3 4" : undefined}
        />
      );
    case "arrow":
      return <Arrow from={figure} to={figures.get(mark.to)} />;
    case "label":
      return <LabelView label={mark} figure={figure} figures={figures} />;
    case "sign":
      return <SignView sign={mark} figure={figure} />;
    case "token":
      return line ? null : <Token count={mark.count} at={{ x: bounds.x, y: bounds.y + bounds.height / 2 }} />;
    case "motion":
      return line ? <Motion key={mark.step} line={line} /> : null;
    case "drawn":
      return (
        <g role="img" aria-label={worded(mark.figure.title)}>
          {mark.figure.primitives.map((primitive, at) => (
            <PrimitiveView key={at} primitive={primitive} lettering={undefined} />
          ))}
        </g>
      );
    case "pen":
      return null;
  }
});
