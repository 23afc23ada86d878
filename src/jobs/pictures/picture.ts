import { kindsIn } from "@/core/commands";
import { type Paper, sceneOf, sceneOfSome, sceneToSvg } from "@/core/drawing";
import type { Diagram, Element, Id, Model } from "@/core/model";
import { embeddedFonts } from "./fonts";
import { sceneToPdf } from "./pdf";
import { sceneToPng } from "./png";

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
  readonly title: string;
  readonly detail: string;
  readonly date: string;
  readonly hueOf?: (lane: Element) => string | undefined;
}

/** One page of a model as a file. The same drawing as on the screen, by the same code. */
export async function pictureOf(model: Model, diagram: Diagram, options: PictureOptions): Promise<Uint8Array> {
  const whole = sceneOf(model, diagram, options.hueOf ? { hueOf: options.hueOf } : {});
  const scene = options.elements.length > 0 ? sceneOfSome(whole, new Set(options.elements)) : whole;
  switch (options.format) {
    case "svg":
      return new TextEncoder().encode(sceneToSvg(scene, { title: options.title, fonts: embeddedFonts() }));
    case "png":
      return sceneToPng(scene, { scale: options.scale, title: options.title });
    case "pdf":
      return sceneToPdf(scene, { ...options, legend: options.legend ? kindsIn(model, scene) : [] });
  }
}
