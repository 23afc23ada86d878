"use client";
import { nanoid } from "nanoid";
import { useCallback, useState } from "react";
import { inVersion } from "@/contract";
import type { Command } from "@/core/commands";
import { type ChangeGroup, type Fault, outcomeOf, takeOver, withNeeded } from "@/core/compare";
import type { Model } from "@/core/model";
import { complain, tell } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { did, undoLast } from "../../kernel/history";
import { text, worded } from "../../messages";
import { editElsewhere } from "../../version/editElsewhere";
import { useVersionStore } from "../../version/VersionContext";
import type { Compared } from "./useComparison";

/** A version that is not open would be changed: said before it is done. */
export interface Asked {
  readonly into: "from" | "to";
  readonly keys: readonly string[];
}

export interface Refused {
  readonly into: "from" | "to";
  readonly keys: readonly string[];
  readonly message: string;
  /** What would have to come along; empty where nothing helps. */
  readonly along: readonly ChangeGroup[];
  /** Errors the outcome would have that neither side has; it may be wanted all the same. */
  readonly errors: readonly string[];
}

/** What the check says is wrong with a model, behaviour included. The rules are loaded when something is taken over. */
async function faults(): Promise<(model: Model) => Fault[]> {
  const { checkModel, keyOf } = await import("@/core/check");
  const known = new WeakMap<Model, Fault[]>();
  return (model) => {
    const found =
      known.get(model) ??
      checkModel(model)
        .filter(({ severity }) => severity === "error")
        .map((finding) => ({ key: keyOf(finding), message: worded(finding.said) }));
    known.set(model, found);
    return found;
  };
}

/** Takes changes over into one side, if that is what a version holds now. What hangs on other changes is asked about first. */
export function useTakeOver(
  compared: Compared | undefined,
  onDone: () => void,
  onSettled: (groups: readonly ChangeGroup[], how: "taken" | "undone") => void,
) {
  const store = useVersionStore();
  const [refused, setRefused] = useState<Refused | null>(null);
  const [asked, setAsked] = useState<Asked | null>(null);
  const mayInto = useCallback((into: "from" | "to") => compared?.[into].head !== null, [compared]);
  const take = useCallback(
    async (into: "from" | "to", keys: readonly string[], { anyway = false, isSaid = true } = {}) => {
      if (!compared) return;
      const { from, to, pairs, groups } = compared;
      const head = compared[into].head;
      if (!head) return;
      const request = { from: from.model, to: to.model, pairs, groups, into };
      const done = takeOver(request, keys);
      if (!done.ok) {
        const needed = withNeeded(request, keys).filter((key) => !keys.includes(key));
        const along = groups.filter((group) => needed.includes(group.key));
        setRefused({ into, keys, message: worded(done.message), along, errors: [] });
        return;
      }
      if (!anyway) {
        // A split without its join names nothing that is missing; only how the outcome behaves tells that they belong together.
        const outcome = outcomeOf(request, keys, done, await faults());
        if (outcome.faults.length > 0) {
          const along = groups.filter((group) => outcome.along.includes(group.key));
          const errors = outcome.faults.map(({ message }) => message);
          setRefused({ into, keys, message: text.compare.wouldBeWrong(errors.length), along, errors });
          return;
        }
      }
      if (!isSaid) {
        setAsked({ into, keys });
        return;
      }
      setRefused(null);
      setAsked(null);
      const words = groups.find((group) => group.key === keys[0])?.words ?? "";
      const label = text.compare.takeLabel(words.slice(0, 200), keys.length - 1);
      const command = { type: "edits", label, edits: done.edits } as unknown as Command;
      const send = async (commands: readonly Command[]) => {
        await ask(inVersion.applyCommands, {
          version: head.version,
          batch: nanoid(),
          base: head.sequence,
          commands,
          keep: label,
        });
        onDone();
      };
      try {
        if (head.isOpen) {
          if (!store.getState().dispatchKeeping(label, command)) return;
          onDone();
        } else {
          await store.getState().settled();
          await send([command]);
        }
        // In the open version it is undone as everything is; in the other one by the history of all that was done.
        if (!head.isOpen) did(editElsewhere(head.version, { edits: done.edits, label }));
        onSettled(
          groups.filter((group) => keys.includes(group.key)),
          into === "from" ? "taken" : "undone",
        );
        tell({
          description: text.compare.taken(compared[into].title),
          ...(!head.isOpen && {
            action: { label: text.home.undo, onClick: () => void undoLast().then(onDone, complain) },
          }),
        });
      } catch (error) {
        complain(error);
      }
    },
    [compared, store, onDone, onSettled],
  );
  /** Takes over at once into the open version; into another one only after it was said, here or with what stands in the way. */
  const wish = useCallback(
    (into: "from" | "to", keys: readonly string[]) =>
      void take(into, keys, { isSaid: compared?.[into].head?.isOpen !== false }),
    [compared, take],
  );
  const forget = useCallback(() => {
    setRefused(null);
    setAsked(null);
  }, []);
  return { take, wish, mayInto, refused, asked, forget };
}
