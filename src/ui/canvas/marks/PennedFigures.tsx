"use client";
import { type CSSProperties, memo, useMemo } from "react";
import type { Figure } from "@/core/drawing";
import type { Id } from "@/core/model";
import { Figures, FigureView } from "../FigureView";
import type { useLettering } from "../useLettering";
import type { Mark, Pen } from "./mark";
import { tones } from "./tones";

type Lettering = ReturnType<typeof useLettering>;
const colours: { readonly [pen in Pen]: string } = { from: tones.pencil.colour, to: tones.accent.colour };

/** All figures of a page, those that only one of two sides has in its pen. */
export const PennedFigures = memo(function PennedFigures({
  figures,
  marks,
  lettering,
}: {
  readonly figures: readonly Figure[];
  readonly marks: readonly Mark[];
  readonly lettering: Lettering;
}) {
  const pens = useMemo(
    () => new Map<Id, Pen>(marks.flatMap((mark) => (mark.as === "pen" ? [[mark.on, mark.pen] as const] : []))),
    [marks],
  );
  const plain = useMemo(() => figures.filter((figure) => !pens.has(figure.id)), [figures, pens]);
  const penned = figures.filter((figure) => pens.has(figure.id));
  // Lanes and pools lie under everything, so those in another pen are drawn first.
  const isGround = (figure: Figure) => figure.type === "lane" || figure.type === "participant";
  const view = (figure: Figure) => (
    <Penned key={figure.id} figure={figure} pen={pens.get(figure.id) as Pen} lettering={lettering} />
  );
  return (
    <>
      {penned.filter(isGround).map(view)}
      <Figures figures={plain} lettering={lettering} />
      {penned.filter((figure) => !isGround(figure)).map(view)}
    </>
  );
});

function Penned({
  figure,
  pen,
  lettering,
}: {
  readonly figure: Figure;
  readonly pen: Pen;
  readonly lettering: Lettering;
}) {
  return (
    <g
      data-pen={pen}
      style={{ "--chakra-colors-ink": colours[pen] } as CSSProperties}
      strokeDasharray={pen === "from" ? "5 3" : undefined}
    >
      {pen === "to" && !figure.line && <SecondFrame figure={figure} />}
      <FigureView figure={figure} lettering={lettering} />
    </g>
  );
}

/** What only the new side has is drawn with a second frame a little off: it holds in grey print as well. */
function SecondFrame({ figure }: { readonly figure: Figure }) {
  const { x, y, width, height } = figure.bounds;
  const [cx, cy] = [x + width / 2 + 4, y + height / 2 + 4];
  const stroke = { fill: "none", stroke: colours.to, strokeWidth: 1.4 };
  if (figure.type.endsWith("Event")) return <circle cx={cx} cy={cy} r={width / 2} {...stroke} />;
  if (figure.type.endsWith("Gateway"))
    return (
      <path
        d={`M${cx} ${cy - height / 2}L${cx + width / 2} ${cy}L${cx} ${cy + height / 2}L${cx - width / 2} ${cy}Z`}
        {...stroke}
      />
    );
  return <rect x={x + 4} y={y + 4} width={width} height={height} rx="8" {...stroke} />;
}
