import { createStore } from "zustand/vanilla";
import type { Plan } from "@/core/capture";
import { type Command, perform } from "@/core/commands";
import type { Model } from "@/core/model";
import type { VersionStore } from "../version/versionStore";

interface Opened {
  readonly store: VersionStore;
  readonly model: () => Model;
  /** What was done, in order. */
  readonly done: Command[];
  /** What was refused, in words. */
  readonly said: string[];
}

/** An open version without a server: commands are performed on its model, and what was done and said is kept for looking at. */
export function openedVersion(start: Model): Opened {
  const done: Command[] = [];
  const said: string[] = [];
  const store = createStore<{
    model: Model;
    dispatch: (...commands: Command[]) => boolean;
    take: (planned: Plan) => void;
    say: (kind: string, words: string) => void;
  }>((set, get) => ({
    model: start,
    dispatch: (...commands) => {
      let { model } = get();
      for (const command of commands) {
        const performed = perform(model, command);
        if (!performed.ok) {
          said.push(performed.problems.map(({ message }) => message).join(" "));
          return false;
        }
        model = performed.value.model;
      }
      done.push(...commands);
      set({ model });
      return true;
    },
    take: ({ commands, model }) => {
      done.push(...commands);
      set({ model });
    },
    say: (_, words) => void said.push(words),
  }));
  return { store: store as unknown as VersionStore, model: () => store.getState().model, done, said };
}
