import { z } from "zod";
import { asks, type Done, named, directory as ofDirectory } from "./contract";
import type { UseRow } from "./directory";
import { id, name, sequenceNumber } from "./inputs";

/** So long a file of decisions may be, in letters. */
export const mostDecisionLetters = 4_000_000;

export interface ListedDecisionFile {
  readonly id: string;
  readonly name: string;
  readonly decisions: readonly {
    readonly id: string;
    readonly name: string;
    readonly answers: readonly string[] | null;
    readonly needs: readonly string[];
  }[];
  /** How many steps of versions that are there decide by it. */
  readonly uses: number;
  readonly member: string;
  readonly changedAt: string;
}

export interface OpenedDecisionFile {
  readonly id: string;
  readonly name: string;
  readonly content: string;
  readonly revision: number;
  readonly uses: readonly UseRow[];
}

const content = z.string().max(mostDecisionLetters);
const on = () => [ofDirectory];

export const decisions = named({
  listDecisionFiles: asks<{ files: readonly ListedDecisionFile[] }>()({ input: z.object({}), right: "read", on }),
  openDecisionFile: asks<OpenedDecisionFile>()({ input: z.object({ id }), right: "read", on }),
  /** The texts of some files, of those that are there: what processes decide by. */
  decisionTexts: asks<{ files: readonly { id: string; content: string }[] }>()({
    input: z.object({ ids: z.array(id).max(500) }),
    right: "read",
    on,
  }),
  createDecisionFile: asks<{ id: string; revision: number }>()({
    input: z.object({ id: id.optional(), name, content: content.optional() }),
    right: "edit",
    on,
  }),
  /** Keeps a text. One that was changed elsewhere since is not overwritten: the answer is a refusal. */
  saveDecisionFile: asks<{ revision: number }>()({
    input: z.object({ id, base: sequenceNumber, save: id, unanswered: z.array(id).max(1000), content }),
    right: "edit",
    on,
  }),
  deleteDecisionFile: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
  restoreDecisionFile: asks<Done>()({ input: z.object({ id }), right: "edit", on }),
});
