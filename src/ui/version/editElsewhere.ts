import { nanoid } from "nanoid";
import { inVersion } from "@/contract";
import { type Command, perform, undoOf } from "@/core/commands";
import { type Edit, trustStored } from "@/core/model";
import { ask } from "../kernel/ask";
import type { Act } from "../kernel/history";
import { reasons } from "../messages";

interface Made {
  readonly edits: readonly Edit[];
  readonly label: string;
}

/** An edit of a version that is not open here: taken back and brought again on what it holds now. */
export function editElsewhere(version: string, made: Made): Act {
  let last: Made = made;
  const turn = async (label: string) => {
    const { model, sequence, generation } = await ask(inVersion.openVersion, { version });
    const command = { ...undoOf(last), label } as Command;
    const done = perform(trustStored(model), command);
    if (!done.ok) throw new Error(reasons(done.problems));
    await ask(inVersion.applyCommands, {
      version,
      batch: nanoid(),
      base: sequence,
      generation,
      commands: [command],
      label,
    });
    last = { edits: done.value.edits, label: made.label };
  };
  return { label: made.label, undo: () => turn(`undo: ${made.label}`), redo: () => turn(made.label) };
}
