"use client";
import { type Lens, lensFigures } from "@/core/lens";
import { term } from "@/core/messages";
import { PrimitiveView } from "../../../canvas/FigureView";

const bounds = { x: 12, y: 14, width: 34, height: 16 };
const sample = { id: "sample", type: "task", title: term(""), layer: 0, primitives: [], bounds };

/** What a lens looks like, small. */
export function LensSample({ lens }: { readonly lens: Pick<Lens, "name" | "pen" | "line" | "sign"> }) {
  const [figure] = lensFigures({ figures: [sample], bounds }, [{ lens, marked: ["sample"] }]);
  return (
    <svg width="54" height="40" viewBox="0 0 54 40" role="presentation" aria-hidden="true">
      {figure?.primitives.map((primitive, at) => (
        <PrimitiveView key={at} primitive={primitive} lettering={undefined} />
      ))}
    </svg>
  );
}
