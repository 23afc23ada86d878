import { sentencesIn } from "@/core/handbook";
import type { Sentences } from "@/core/messages";
import { check } from "./check";
import { commands } from "./commands";
import { compare } from "./compare";
import { editing } from "./editing";
import { evidence } from "./evidence";
import { files } from "./files";
import { kinds } from "./kinds";
import { playing } from "./playing";
import { refusals } from "./refusals";
import { scenario } from "./scenario";

const inHandbooks = [...sentencesIn("de")];
const neuter = /(gateway|ereignis|objekt|signal)(?=$|[ ,(])/i;
const masculine = /(prozess|fluss|speicher|pool)$/i;
const article = (word: string) => (neuter.test(word) || masculine.test(word) ? "ein" : "eine");

/** The kinds of elements with their articles, as sentences name them: "a user task". */
const withArticles = [...inHandbooks, ...Object.entries(kinds)].flatMap(([english, word]) => [
  [`a ${english}`, `${article(word)} ${word}`] as const,
  [`an ${english}`, `${article(word)} ${word}`] as const,
]);

/** What core and the server say, in German, by its English code. */
export const sentences: Sentences = new Map([
  ...withArticles,
  ...inHandbooks,
  ...Object.entries({
    ...kinds,
    ...check,
    ...commands,
    ...compare,
    ...editing,
    ...evidence,
    ...files,
    ...playing,
    ...refusals,
    ...scenario,
  }),
]);
