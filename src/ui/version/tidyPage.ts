import { type Command, noteTidy } from "@/core/commands";
import type { Edit, Id, Model } from "@/core/model";
import { tell, untell } from "../controls/notices";
import { JobRunner } from "../kernel/jobRunner";
import { text } from "../messages";
import type { VersionStore } from "./versionStore";

/** Pages with more shapes (a hundred steps, their lanes and ends) are tidied in a worker, so that typing and pointing go on. */
const tidiedAtOnce = 112;
/** After this long one is told, and may call it off. */
const patience = 1000;

const worker = new JobRunner();

const sizeOf = (model: Model, diagram: Id) => {
  let count = 0;
  for (const shape of model.shapes) if (shape.diagram === diagram) count++;
  return count;
};
export const isLargePage = (model: Model, diagram: Id): boolean => sizeOf(model, diagram) > tidiedAtOnce;

/** Asks the worker for something; after a while one is told, and may call it off, which gives null. */
export function inWorker<Answer>(words: string, ask: (runner: JobRunner) => Promise<Answer>): Promise<Answer | null> {
  return new Promise((resolve, reject) => {
    let said: number | undefined;
    const timer = setTimeout(() => {
      said = tell({
        description: words,
        duration: 600_000,
        action: {
          label: text.dialog.cancel,
          onClick: () => {
            worker.stop();
            resolve(null);
          },
        },
      });
    }, patience);
    ask(worker)
      .then(resolve, reject)
      .finally(() => {
        clearTimeout(timer);
        if (said !== undefined) untell(said);
      });
  });
}

/** The edits that tidy a page, worked out in the worker; null where somebody called it off. */
export const tidyEdits = (model: Model, diagram: Id): Promise<readonly Edit[] | null> =>
  inWorker(text.diagram.tidying, (runner) => runner.run("tidyPage", { model }, { diagram }));

/**
 * Tidies a page: at once where it is small, else as soon as the worker has it. What is changed meanwhile is tidied with it.
 * `amend`: as a part of the last gesture, which is then taken back with it.
 */
export async function tidyPage(store: VersionStore, diagram: Id, amend = false): Promise<void> {
  const run = (...commands: readonly Command[]) =>
    amend ? store.getState().amend(...commands) : store.getState().dispatch(...commands);
  if (!isLargePage(store.getState().model, diagram)) {
    if (run({ type: "tidy", diagram })) noteTidy(store.getState().model, diagram);
    return;
  }
  for (let attempt = 0; attempt < 20; attempt++) {
    const { model } = store.getState();
    const edits = await tidyEdits(model, diagram);
    if (edits === null) return;
    if (store.getState().model !== model) continue;
    if (edits.length > 0) run({ type: "edits", label: text.diagram.tidied, edits: edits as never });
    noteTidy(store.getState().model, diagram);
    return;
  }
}
