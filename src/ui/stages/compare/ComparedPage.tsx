"use client";
import { type CSSProperties, useEffect, useMemo } from "react";
import { type Figure, type Scene, textWidth } from "@/core/drawing";
import { overlaps } from "@/core/layout";
import type { Id, Point } from "@/core/model";
import { Figures, FigureView } from "../../canvas/FigureView";
import { ShownPage, useShownPage } from "../../canvas/ShownPage";
import { useLettering } from "../../canvas/useLettering";
import type { Viewport } from "../../canvas/useViewport";
import { useVisibleFigures } from "../../canvas/useVisibleFigures";

/** How a figure is drawn besides what it is. */
export interface Look {
  /** Whose pen: what both have is in ink. */
  readonly pen: "both" | "from" | "to";
  readonly tag: string;
  readonly tagPen: "from" | "to";
  readonly current: boolean;
}

interface ComparedPageProps {
  readonly scene: Scene;
  readonly looks: ReadonlyMap<Id, Look>;
  /** Fine arrows from where something was to where it is. */
  readonly arrows?: readonly (readonly [from: Id, to: Id])[];
  readonly label: string;
  readonly onPick: (id: Id | undefined) => void;
  /** Called with the viewport once it is there. */
  readonly onViewport: (viewport: Viewport) => void;
  /** Whether this page has the button that shows all of it: one of two that go together has. */
  readonly hasFit: boolean;
}

const pens = { from: "var(--chakra-colors-pencil)", to: "var(--chakra-colors-accent)" } as const;

/** One drawing of a comparison: what both sides share in ink, what only one has in its own pen, paper labels for what happened. */
export function ComparedPage({ scene, looks, arrows = [], label, onPick, onViewport, hasFit }: ComparedPageProps) {
  const page = useShownPage(scene);
  const { viewport } = page;
  useEffect(() => onViewport(viewport), [viewport, onViewport]);
  const visible = useVisibleFigures(scene, viewport);
  const lettering = useLettering(scene.figures.length);
  const plain = useMemo(() => visible.filter((figure) => !looks.has(figure.id)), [visible, looks]);
  const marked = useMemo(() => visible.filter((figure) => looks.has(figure.id)), [visible, looks]);
  const byId = useMemo(() => new Map(scene.figures.map((figure) => [figure.id, figure])), [scene]);
  // Lanes and pools lie under everything, so what is marked of them is drawn first.
  const isGround = (figure: Figure) => figure.type === "lane" || figure.type === "participant";
  return (
    <ShownPage shown={page} label={label} onPick={onPick} fits={hasFit ? "key" : "not"}>
      {marked.filter(isGround).map((figure) => (
        <Marked key={figure.id} figure={figure} look={looks.get(figure.id) as Look} lettering={lettering} />
      ))}
      <Figures figures={plain} lettering={lettering} />
      {marked
        .filter((figure) => !isGround(figure))
        .map((figure) => (
          <Marked key={figure.id} figure={figure} look={looks.get(figure.id) as Look} lettering={lettering} />
        ))}
      {arrows.map(([from, to]) => (
        <Arrow key={`${from} ${to}`} from={byId.get(from)} to={byId.get(to)} />
      ))}
      {marked.map((figure) => (
        <Tag key={figure.id} figure={figure} look={looks.get(figure.id) as Look} />
      ))}
    </ShownPage>
  );
}

function Marked({
  figure,
  look,
  lettering,
}: {
  readonly figure: Figure;
  readonly look: Look;
  readonly lettering: ReturnType<typeof useLettering>;
}) {
  const pen = look.pen === "both" ? undefined : pens[look.pen];
  const { x, y, width, height } = figure.bounds;
  return (
    <g
      data-look={look.pen}
      style={pen ? ({ "--chakra-colors-ink": pen } as CSSProperties) : undefined}
      strokeDasharray={look.pen === "from" ? "5 3" : undefined}
    >
      {look.pen === "to" && !figure.line && <SecondFrame figure={figure} pen={pens.to} />}
      <FigureView figure={figure} lettering={lettering} />
      {look.current && figure.line && (
        <path
          d={figure.line.map((point, at) => `${at === 0 ? "M" : "L"}${point.x} ${point.y}`).join("")}
          fill="none"
          stroke={pens[look.tagPen]}
          strokeWidth="5"
          strokeOpacity="0.28"
        />
      )}
      {look.current && !figure.line && (
        <rect
          x={x - 6}
          y={y - 6}
          width={width + 12}
          height={height + 12}
          rx="10"
          fill="none"
          stroke={pens[look.tagPen]}
          strokeWidth="2.4"
          strokeDasharray="none"
        />
      )}
    </g>
  );
}

/** What only the new side has is drawn with a second frame a little off: it holds in grey print as well. */
function SecondFrame({ figure, pen }: { readonly figure: Figure; readonly pen: string }) {
  const { x, y, width, height } = figure.bounds;
  const [cx, cy] = [x + width / 2 + 4, y + height / 2 + 4];
  if (figure.type.endsWith("Event"))
    return <circle cx={cx} cy={cy} r={width / 2} fill="none" stroke={pen} strokeWidth="1.4" />;
  if (figure.type.endsWith("Gateway"))
    return (
      <path
        d={`M${cx} ${cy - height / 2}L${cx + width / 2} ${cy}L${cx} ${cy + height / 2}L${cx - width / 2} ${cy}Z`}
        fill="none"
        stroke={pen}
        strokeWidth="1.4"
      />
    );
  return <rect x={x + 4} y={y + 4} width={width} height={height} rx="8" fill="none" stroke={pen} strokeWidth="1.4" />;
}

function Arrow({ from, to }: { readonly from: Figure | undefined; readonly to: Figure | undefined }) {
  if (!from || !to || from.line || to.line) return null;
  const middle = ({ bounds: { x, y, width, height } }: Figure) => ({ x: x + width / 2, y: y + height / 2 });
  const [a, b] = [middle(from), middle(to)];
  const isUp = b.y < a.y;
  const start = { x: a.x, y: isUp ? from.bounds.y - 4 : from.bounds.y + from.bounds.height + 4 };
  const end = { x: b.x, y: isUp ? to.bounds.y + to.bounds.height + 8 : to.bounds.y - 8 };
  const length = Math.hypot(end.x - start.x, end.y - start.y);
  if (length < 12) return null;
  const [ux, uy] = [(end.x - start.x) / length, (end.y - start.y) / length];
  const wing = (side: 1 | -1) => `${end.x - 8 * ux + side * 4 * uy} ${end.y - 8 * uy - side * 4 * ux}`;
  return (
    <path
      data-arrow={`${from.id} ${to.id}`}
      d={`M${start.x} ${start.y}L${end.x} ${end.y}M${wing(1)}L${end.x} ${end.y}L${wing(-1)}`}
      fill="none"
      stroke={pens.to}
      strokeWidth="1.3"
    />
  );
}

const tagHeight = 20;

/** At the upper corner; where the name stands there, at the lower one, or beside. */
function placeOfTag({ bounds, label }: Figure, width: number): Point {
  const right = bounds.x + bounds.width;
  const places: Point[] = [
    { x: right - width + 8, y: bounds.y - 15 },
    { x: right - width + 8, y: bounds.y + bounds.height - 5 },
    { x: right + 4, y: bounds.y + (bounds.height - tagHeight) / 2 },
  ];
  const isInside = !label || overlaps(label.bounds, bounds, -4);
  const free = places.find((place) => isInside || !overlaps(label.bounds, { ...place, width, height: tagHeight }, 0));
  return free ?? (places[0] as Point);
}

function Tag({ figure, look }: { readonly figure: Figure; readonly look: Look }) {
  if (look.tag === "" || figure.line) return null;
  const width = textWidth(look.tag, 13, 600) + 14;
  const { x, y } = placeOfTag(figure, width);
  const pen = pens[look.tagPen];
  return (
    <g data-tag={figure.id}>
      <rect
        x={x}
        y={y}
        width={width}
        height={tagHeight}
        rx="4"
        fill="var(--chakra-colors-paper)"
        stroke={pen}
        strokeWidth="1.2"
        strokeDasharray={look.tagPen === "from" ? "4 2.5" : undefined}
      />
      <text x={x + width / 2} y={y + 14.5} fontSize="13" fontWeight="600" textAnchor="middle" fill={pen}>
        {look.tag}
      </text>
    </g>
  );
}
