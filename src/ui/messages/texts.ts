import { counted } from "@/core/model";

/** Words of the sheet of texts in several languages. */
export const textsWords = {
  part: "Languages",
  title: "Texts in another language",
  explain:
    "What each thing is called, and what is said of it, beside the model's own words. The handbook is told in any language that is kept here.",
  language: "Language",
  another: "Add a language",
  anotherHint: "its code, as de or pt-BR",
  noLanguage: "A language is told by its code, as de or pt-BR.",
  add: "Add",
  missing: (count: number) => (count === 0 ? "Nothing is missing." : `${counted(count, "text")} missing`),
  onlyMissing: "Only what is missing",
  none: "There is no language yet besides the model's own. Add one by its code, then fill in what things are called in it.",
  nothingMissing: "Nothing is missing in this language.",
  nothing: "Nothing here has a name yet.",
  kind: "What",
  own: "In the model's words",
  name: (language: string) => `Name (${language})`,
  description: (language: string) => `Description (${language})`,
  nameOf: (of: string, language: string) => `Name in ${language}: ${of}`,
  descriptionOf: (of: string, language: string) => `Description in ${language}: ${of}`,
  rich: "This description has emphasis or lists; it is written at its element, under Notes.",
  more: (count: number) => `Show ${counted(count, "more row")}`,
  save: "Save as CSV",
  load: "Read a CSV …",
  loaded: (count: number, unknown: number) =>
    `${counted(count, "text")} taken over${unknown > 0 ? `; ${counted(unknown, "row")} of things that are not here` : ""}.`,
  nothingLoaded: "Nothing in this file is new.",
};
