import { answersOf, inputsNeeded, modelOf, openDocument } from "@/core/decisions";
import type { Problem } from "@/core/model";
import type { Job } from "./job";

/** A decision as a list tells it: what it is called, and what can come out where that can be listed. */
export interface ToldDecision {
  readonly id: string;
  readonly name: string;
  readonly answers: readonly string[] | null;
  readonly needs: readonly string[];
}

/** What a file of decisions is called and what it decides; what is wrong with it, where it cannot be read. */
export const readDecisionFile: Job<
  { readonly content: string },
  { readonly name: string; readonly decisions: readonly ToldDecision[] } | { readonly problem: Problem | undefined }
> = (_, { content }) => {
  const opened = openDocument(new TextEncoder().encode(content));
  if (!opened.ok) return { problem: opened.problems[0] };
  const model = modelOf(opened.value);
  const { name, decisions } = model;
  return {
    name,
    decisions: [...decisions.values()].map((one) => ({
      id: one.id,
      name: one.name,
      answers: answersOf(one)?.slice(0, 200) ?? null,
      needs: inputsNeeded(model, one)
        .map((input) => input.name)
        .slice(0, 200),
    })),
  };
};
