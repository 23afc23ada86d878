export {
  anchorOf,
  type Block,
  type Booklet,
  type Column,
  type Fact,
  joined,
  type Line,
  line,
  linkTo,
  type Run,
  wordsOfLine,
} from "./booklet";
export { blocksOfText } from "./ofRichText";
