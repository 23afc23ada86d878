/** The closed classes of English words a clause is built with. Common knowledge of the language, no source. */
const list = (words: string): ReadonlySet<string> => new Set(words.trim().split(/\s+/));

export const coordinators = list("and or but nor then plus");
export const determiners = list(
  "a an the this that these those his her its their our your my each every all both either neither any some no another other",
);
export const pronouns = list(
  "he she it they we you i him her them us himself herself itself themselves this that these those one ones none everybody everyone somebody someone nobody everything nothing both all others",
);
export const prepositions = list(`
  about above across against along among around at behind below beneath beside besides between beyond by despite down during
  except for from in inside into like near of off on onto out outside over per past through throughout to toward towards under
  up upon via with within without`);
/** "Looks up", "fills in", "sends back": what belongs to a verb and stands behind it. */
export const particles = list("up down in out off on over back away through along forward together apart");
export const auxiliaries = list("is are was were be been being am has have had does do did gets get got");
export const modals = list("can could may might must shall should will would cannot need");
/** "Is", "has been": with a participle behind them something is done to the subject. */
export const formsOfBe = list("is are was were be been being am gets get got");
export const negators = list("not never no cannot neither nor none nobody nothing without");

/** "The application lapses": verbs without an object, whose third person looks like the plural of a noun. */
export const intransitive = list(`
  accept agree answer appear approve arrive attend call cancel change close come continue decide decline differ die disagree end
  expire fail fall finish follow go help issue lapse leave match object occur open pass pay refuse reject reply report resign respond
  return rise run sign start stay stop succeed wait withdraw work`);

/** How one clause is tied to what stands around it. */
export type Link =
  | "if"
  | "unless"
  | "whether"
  | "when"
  | "while"
  | "until"
  | "before"
  | "after"
  | "because"
  | "relative"
  | "and"
  | "or"
  | "but"
  | "then"
  | undefined;

/** Words and groups of words that begin a clause which hangs on another, the longest first. */
export const subordinators: readonly (readonly [string, Link])[] = [
  ["as soon as", "when"],
  ["as long as", "while"],
  ["so long as", "while"],
  ["in the event that", "if"],
  ["on condition that", "if"],
  ["provided that", "if"],
  ["providing that", "if"],
  ["in order to", "because"],
  ["even if", "if"],
  ["only if", "if"],
  ["each time", "when"],
  ["every time", "when"],
  ["so that", "because"],
  ["in case", "if"],
  ["provided", "if"],
  ["whenever", "when"],
  ["whether", "whether"],
  ["unless", "unless"],
  ["whilst", "while"],
  ["while", "while"],
  ["until", "until"],
  ["till", "until"],
  ["because", "because"],
  ["although", "because"],
  ["though", "because"],
  ["since", "because"],
  ["before", "before"],
  ["after", "after"],
  ["once", "when"],
  ["when", "when"],
  ["where", "when"],
  ["if", "if"],
];
