import type { Scene } from "@/core/drawing";
import { lensFigures, type SeenLens } from "@/core/lens";
import type { Mark } from "../../../canvas/marks/mark";

/** What lenses mark on a page, drawn as it goes out in pictures too. */
export const lensMarks = (scene: Scene, shown: readonly SeenLens[]): readonly Mark[] =>
  lensFigures(scene, shown).map((figure) => ({
    on: figure.id.slice("lens ".length),
    means: "lens",
    as: "drawn",
    figure,
  }));
