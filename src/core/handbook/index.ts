export { changeBlocks } from "./changes";
export { commentBlocks, type ToldThread } from "./comments";
export { figureBlocks, type ToldForecast } from "./figures";
export {
  type Handbook,
  type HandbookModel,
  type HandbookPart,
  type HandbookRequest,
  handbookOf,
  handbookParts,
  nameOfModel,
} from "./handbook";
export { languageToTell, sentencesIn } from "./sentences";
export { type HandbookTemplate, mostLogoLetters, templateSchema } from "./template";
