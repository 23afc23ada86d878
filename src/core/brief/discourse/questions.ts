import { type Said, say } from "../../messages";

/** One way to settle what a text leaves open. */
export interface Choice {
  readonly id: string;
  readonly label: Said;
}

/** What the text does not tell, for an analyst to settle. */
export interface OpenQuestion {
  /** The same as long as the words it is about are there. */
  readonly id: string;
  /** The number of the sentence. */
  readonly sentence: number;
  readonly question: Said;
  /** The marks whose elements it is about. */
  readonly marks: readonly string[];
  /** What it may be answered by; the last is what is drawn as long as nobody answers. */
  readonly choices: readonly Choice[];
}

/** What was answered, by the questions' ids. */
export type Answers = { readonly [question: string]: string };

export const ends: Choice = { id: "ends", label: say`It ends here` };
export const goesOn: Choice = { id: "on", label: say`It goes on` };
export const waitsAgain: Choice = { id: "again", label: say`It waits again` };
export const yes: Choice = { id: "yes", label: say`Yes` };
export const no: Choice = { id: "no", label: say`No` };
export const bothGoOn: Choice = { id: "on", label: say`Both go on` };
export const noEnds: Choice = { id: "no", label: say`It ends where the answer is no` };
export const yesEnds: Choice = { id: "yes", label: say`It ends where the answer is yes` };
export const asDrawn: Choice = { id: "drawn", label: say`As it is drawn` };
export const nobody: Choice = { id: "nobody", label: say`Nobody in particular` };
export const anotherAnswer: Choice = { id: "other", label: say`An answer of its own` };
export const backTo = (step: string): Choice => ({ id: "again", label: say`Back to "${step}"` });
export const named = (name: string): Choice => ({ id: `=${name}`, label: say`${name}` });
