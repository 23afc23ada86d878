import { z } from "zod";
import { type Said, say } from "../../messages";
import { type Edit, invertAll, laneOf, type Model, nameOf, ok, type Result, termFor } from "../../model";
import { Change, Refusal } from "./change";
import { type Command, register, type Words } from "./register";
import { isTended, tend } from "./tend";

export type { Command } from "./register";

const schemas = Object.values(register).map(({ schema }) => schema);
/** What must be sent for a command. */
export const commandSchema = z.discriminatedUnion("type", schemas as never) as unknown as z.ZodType<Command, Command>;

export interface Performed {
  readonly model: Model;
  readonly edits: readonly Edit[];
  /** What the undo menu and the history call it: "move Inspect on site". */
  readonly label: string;
  /** What a person ought to be told besides. */
  readonly remarks: readonly string[];
}

/** A model after some commands, one after the other; undefined where one of them is refused. */
export function performed(model: Model, commands: readonly Command[]): Model | undefined {
  let now = model;
  for (const command of commands) {
    const done = perform(now, command);
    if (!done.ok) return undefined;
    now = done.value.model;
  }
  return now;
}

/**
 * Turns a command into edits on a given model, or says why not. Pure: the same command on the same model gives the same
 * edits, in the browser and on the server.
 * @param isRough for one of many commands that end with tidying the page: flows are drawn without looking for a way
 */
export function perform(
  model: Model,
  command: Command,
  { isRough = false }: { readonly isRough?: boolean } = {},
): Result<Performed> {
  const change = new Change(model, isRough);
  try {
    registered(command).does(change, command);
    if (!isRough && isTended(command.type)) tend(change, [...change.edits]);
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, problems: error.problems };
    throw error;
  }
  return ok({
    model: change.model,
    edits: change.edits,
    label: registered(command).label(command, wordsFor(model, change.model)).text,
    remarks: change.remarks.map(({ text }) => text),
  });
}

/** What stands for one command in the register; its own kind is known only there. */
const registered = (command: Command) =>
  register[command.type] as unknown as {
    does(change: Change, command: Command): void;
    label(command: Command, words: Words): Said;
  };

/** How what a command was about is called before it or after it. */
function wordsFor(before: Model, after: Model): Words {
  const called = (id: string): Said => {
    const name = nameOf(after, id) || nameOf(before, id);
    if (name) return say`${name}`;
    return termFor(after.elements.get(id)?.type ?? before.elements.get(id)?.type ?? "element");
  };
  return {
    called,
    several: (ids) => (ids.length === 1 ? called(ids[0] as string) : say`${ids.length} elements`),
    landedIn: (ids) => {
      const [lane, other] = new Set(
        ids.flatMap((id) => {
          const now = laneOf(after, id);
          return now && now.id !== laneOf(before, id)?.id ? [nameOf(after, now.id)] : [];
        }),
      );
      return lane && other === undefined ? say` to ${lane}` : say``;
    },
  };
}

/** The command that takes back what was performed. */
export function undoOf(performed: Pick<Performed, "edits" | "label">): Command {
  return { type: "edits", label: performed.label, edits: invertAll(performed.edits) as never };
}
