export { defaultMark } from "./flows";
export { besideLine, flowLabel, type LabelAnchor, labelBeside, nodeLabel, type PlacedLabel } from "./labels";
export { isExpanded, poolBand } from "./nodes";
export type { Figure, Primitive, Tone } from "./primitives";
export { pageOf, type Scene, type SceneOptions, sceneOf, titleOf } from "./scene";
export { exportPalette, type SvgOptions, sceneToSvg } from "./svg";
export { brokenLines, textWidth } from "./text";
