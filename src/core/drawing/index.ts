export { withBadges } from "./badges";
export { defaultMark } from "./flows";
export {
  besideLine,
  flowLabel,
  heightForName,
  type LabelAnchor,
  labelBeside,
  nodeLabel,
  type PlacedLabel,
} from "./labels";
export { isExpanded, poolBand } from "./nodes";
export {
  circle,
  type Figure,
  middleOf,
  outlined,
  type Primitive,
  placed,
  polyline,
  roundedRect,
  stroke,
  type Tone,
} from "./primitives";
export { pageOf, type Scene, type SceneOptions, sceneOf, sceneOfSome, titleOf } from "./scene";
export {
  leastPrint,
  legendColumns,
  overlap,
  type Paper,
  type PaperPlan,
  paperFoot,
  papers,
  planPaper,
  planSheets,
  type Sheet,
  type SheetOptions,
  type SheetPlan,
  sheetMargin,
  smallestPrint,
} from "./sheets";
export { exportPalette, type SvgOptions, sceneToSvg } from "./svg";
export { type DrawnTable, tableToSvg } from "./tableSvg";
export { brokenLines, textWidth } from "./text";
