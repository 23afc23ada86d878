export {
  anchorOf,
  type Block,
  type Booklet,
  type BookletFont,
  bookletFonts,
  type Column,
  type Fact,
  joined,
  type Line,
  line,
  linkTo,
  logoSize,
  type Run,
  wordsOfLine,
} from "./booklet";
export { type BookletKind, bookletKinds, bookletTypes } from "./kinds";
export { blocksOfText } from "./ofRichText";
