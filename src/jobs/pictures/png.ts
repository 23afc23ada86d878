import { Resvg } from "@resvg/resvg-js";
import { type Scene, sceneToSvg } from "@/core/drawing";
import { openTypeFiles } from "./fonts";

/** More pixels than this would take gigabytes to paint. */
const mostPixels = 120_000_000;

/** A picture that would be too large to paint; the message says what to do. */
export class PictureTooLarge extends Error {}

/** A scene as a PNG file, as many times as large as on the screen. */
export function sceneToPng(
  scene: Scene,
  { scale, title }: { readonly scale: number; readonly title?: string },
): Uint8Array {
  const margin = 16;
  const width = Math.ceil((scene.bounds.width + 2 * margin) * scale);
  const height = Math.ceil((scene.bounds.height + 2 * margin) * scale);
  if (width * height > mostPixels)
    throw new PictureTooLarge(
      `The picture would be ${width} × ${height} pixels. Choose a smaller scale, a part of the page, or SVG or PDF, which have no pixels.`,
    );
  const painter = new Resvg(
    sceneToSvg(scene, { margin, semiBoldFamily: "Atkinson Hyperlegible Next SemiBold", ...(title && { title }) }),
    {
      fitTo: { mode: "zoom", value: scale },
      font: { fontFiles: openTypeFiles(), loadSystemFonts: false, defaultFontFamily: "Atkinson Hyperlegible Next" },
    },
  );
  return painter.render().asPng();
}
