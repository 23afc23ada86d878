import { type Command, perform } from "../commands";
import { type Said, say } from "../messages";
import {
  type Edit,
  type Element,
  edgesOf,
  type Id,
  type Model,
  type Problem,
  problem,
  type Result,
  shapesOf,
} from "../model";

/** A refusal while a plan is made; `plan` turns it into a result. */
export class PlanRefusal extends Error {
  constructor(readonly problems: readonly Problem[]) {
    super(problems.map((problem) => problem.message).join(" "));
  }
}

/** Makes ids that the model does not have yet; the word says what of. */
export type NewId = (of: string) => Id;

/** Commands that together are one gesture, each made on the model the ones before it left. */
export class Draft {
  readonly commands: Command[] = [];
  readonly edits: Edit[] = [];
  readonly remarks: string[] = [];
  /** What the first command is called, and with it the gesture. */
  label = "";
  #model: Model;

  constructor(
    model: Model,
    readonly newId: NewId,
    /** Many commands before a tidy: nobody sees how flows run in between. */
    readonly isRough = false,
  ) {
    this.#model = model;
  }

  get model(): Model {
    return this.#model;
  }

  do(command: Command): void {
    const done = perform(this.#model, command, { isRough: this.isRough });
    if (!done.ok) throw new PlanRefusal(done.problems);
    this.#model = done.value.model;
    this.commands.push(command);
    for (const edit of done.value.edits) this.edits.push(edit);
    // Who asks for a lane by its name need not be told that the step stands there.
    if (command.type !== "moveToLane") this.remarks.push(...done.value.remarks);
    this.label ||= done.value.label;
  }

  element(id: Id): Element {
    return (
      this.#model.elements.get(id) ?? this.refuse("unknown-element", say`This row's step is no longer in the model.`)
    );
  }

  /** The page an element is drawn on. */
  pageOf(id: Id): Id {
    const page = shapesOf(this.#model, id)[0]?.diagram ?? edgesOf(this.#model, id)[0]?.diagram;
    return page ?? this.refuse("not-drawn", say`This is drawn on no page. Open the diagram and tidy it first.`);
  }

  refuse(code: string, message: Said): never {
    throw new PlanRefusal([problem({ code, message })]);
  }
}

export interface Plan {
  readonly commands: readonly Command[];
  /** What the commands came to, for whoever need not perform them again. */
  readonly edits: readonly Edit[];
  readonly label: string;
  readonly remarks: readonly string[];
  readonly model: Model;
  /** The element whose row is worked on next. */
  readonly focus: Id | undefined;
}

/** Runs a plan on a model: all its commands, or the reasons why one of them is refused. */
export function plan(
  model: Model,
  newId: NewId,
  make: (draft: Draft) => Id | undefined,
  isRough = false,
): Result<Plan> {
  const draft = new Draft(model, newId, isRough);
  try {
    const focus = make(draft);
    const { commands, edits, label, remarks } = draft;
    return { ok: true, value: { commands, edits, label, remarks, model: draft.model, focus } };
  } catch (error) {
    if (error instanceof PlanRefusal) return { ok: false, problems: error.problems };
    throw error;
  }
}
