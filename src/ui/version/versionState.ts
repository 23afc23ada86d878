import type { VersionData } from "@/contract/version";
import type { Command } from "@/core/commands";
import type { Decision, MergeConflict } from "@/core/merge";
import type { Edit, Model } from "@/core/model";
import type { PendingBatch } from "./outbox";

/** Commands and what they came to. */
export interface Plan {
  readonly commands: readonly Command[];
  readonly edits: readonly Edit[];
  readonly label: string;
  readonly remarks: readonly string[];
  readonly model: Model;
}

/** Two states of one version that go back to a common one. */
export interface Joined {
  readonly common: Model;
  readonly ours: Model;
  readonly theirs: Model;
  readonly sequence: number;
  readonly label: string;
}

export interface Step {
  readonly edits: readonly Edit[];
  readonly label: string;
  /** The moment it was made, or taken back, among all that was done (kernel/history). */
  readonly at: number;
}

/** A change that the server will never take, with its reason; what was made after it goes on. */
export interface SetAside {
  readonly batch: string;
  readonly label: string;
  readonly reason: string;
}

export interface VersionState {
  readonly info: VersionData;
  /** The model as the person sees it: acknowledged and pending commands alike. */
  readonly model: Model;
  readonly pending: readonly PendingBatch[];
  readonly failing: boolean;
  readonly setAside: readonly SetAside[];
  readonly undoStack: readonly Step[];
  readonly redoStack: readonly Step[];
  /** What was changed here and elsewhere, differently, and has to be decided before it is saved. */
  readonly disagreement: (Joined & { readonly conflicts: readonly MergeConflict[] }) | null;
  /** A "no" to be shown, with a number so that the same one can be shown again. */
  readonly notice: { readonly count: number; readonly kind: "refusal" | "remark"; readonly message: string } | null;
}

export interface VersionActions {
  /** Performs commands here at once and sends them. Says whether they were accepted. */
  readonly dispatch: (...commands: readonly Command[]) => boolean;
  /** The same for what is large: what was there before is kept as a revision, under this name. */
  readonly dispatchKeeping: (keep: string, ...commands: readonly Command[]) => boolean;
  /** Takes over commands that were planned on the model as it is now, without performing them again. */
  readonly take: (plan: Plan) => void;
  /** The same as a part of the last gesture: undo takes both back. */
  readonly amend: (...commands: readonly Command[]) => boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly say: (kind: "refusal" | "remark", message: string) => void;
  readonly reload: () => Promise<void>;
  /** Decides what was changed on both sides, conflict by conflict, and saves the outcome. */
  readonly decide: (decide: (conflict: MergeConflict) => Decision) => void;
  /** Stops asking for what others do. */
  readonly close: () => void;
  /** The description was changed or accounted for: the stage's sign follows. */
  readonly noteBrief: (brief: VersionData["brief"]) => void;
  /** The version was given another name or aim. */
  readonly noteVersion: (told: { readonly name: string; readonly aim: string }) => void;
  /** Resolves when everything is acknowledged; rejects, with words, when the server does not answer or something has to be decided. */
  readonly settled: () => Promise<void>;
  /** What was set aside has been read. */
  readonly forgetAside: () => void;
}
