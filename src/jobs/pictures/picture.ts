import { kindsIn } from "@/core/commands";
import { type Paper, type Scene, sceneOf, sceneOfSome, sceneToSvg } from "@/core/drawing";
import { type SeenLens, withLenses, withLensLegend } from "@/core/lens";
import type { Diagram, Element, Id, Model } from "@/core/model";
import { embeddedFonts } from "./fonts";
import { sceneToPdf } from "./pdf";
import { sceneToPng } from "./png";

type Legend = Parameters<typeof sceneToPdf>[1]["legend"];

/** A lens that is shown, and what it marks. */
type LensOption = SeenLens["lens"] & Pick<SeenLens, "marked">;

export interface PictureOptions {
  readonly format: "svg" | "png" | "pdf";
  /** Times the size on the screen, for PNG. */
  readonly scale: number;
  readonly paper: Paper;
  readonly spread: "fit" | "tile";
  /** Whether the symbols used are explained, on paper. */
  readonly legend: boolean;
  /** Only these elements; all where it is empty. */
  readonly elements: readonly Id[];
  readonly lenses?: readonly LensOption[] | undefined;
  readonly title: string;
  readonly detail: string;
  readonly date: string;
  readonly hueOf?: (lane: Element) => string | undefined;
}

/** One page of a model as a file. The same drawing as on the screen, by the same code. */
export async function pictureOf(model: Model, diagram: Diagram, options: PictureOptions): Promise<Uint8Array> {
  const whole = sceneOf(model, diagram, options.hueOf ? { hueOf: options.hueOf } : {});
  const plain = options.elements.length > 0 ? sceneOfSome(whole, new Set(options.elements)) : whole;
  const seen = (options.lenses ?? []).map(({ marked, ...lens }) => ({ lens, marked }));
  const scene = withLensLegend(withLenses(plain, seen), seen);
  return sceneFile(scene, options, options.legend && options.format === "pdf" ? kindsIn(model, scene) : []);
}

/** Whatever is drawn as a file; on paper with what its symbols mean, where they are given. */
export async function sceneFile(
  scene: Scene,
  options: Omit<PictureOptions, "legend" | "elements" | "hueOf">,
  legend: Legend = [],
): Promise<Uint8Array> {
  switch (options.format) {
    case "svg":
      return new TextEncoder().encode(sceneToSvg(scene, { title: options.title, fonts: embeddedFonts() }));
    case "png":
      return sceneToPng(scene, { scale: options.scale, title: options.title });
    case "pdf":
      return sceneToPdf(scene, { ...options, legend });
  }
}
