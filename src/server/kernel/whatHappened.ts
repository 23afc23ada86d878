import type { Said } from "@/core/messages";
import type { Problem } from "@/core/model";
import { lineForLog, toldByDatabase } from "./databaseErrors";
import { UseCaseError } from "./useCase";

export interface Happened {
  readonly code: string;
  readonly message: string;
  /** The same for other languages, where it was said so. */
  readonly said?: Said;
  readonly status: number;
  readonly details: readonly Problem[];
}

/** What a person is told of an error, whatever it is. What nobody foresaw goes to the log, without the contents it met. */
export function whatHappened(error: unknown): Happened {
  if (error instanceof UseCaseError) {
    if (error.status >= 500) console.error(lineForLog(error.cause ?? error));
    const { code, message, said, status, details } = error;
    return { code, message, said, status, details };
  }
  const told = toldByDatabase(error);
  console.error(lineForLog(error));
  if (told) return { ...told, details: [] };
  // Errors of opening the workspace say themselves what is wrong, where, and what to do.
  if (error instanceof Error && ["FolderInUse", "FolderUnusable"].includes(error.name))
    return {
      code: error.name === "FolderInUse" ? "folder-in-use" : "folder-unusable",
      message: error.message,
      status: 503,
      details: [],
    };
  const message = "Something went wrong on the server. What you did is kept here; try again.";
  return { code: "internal", message, status: 500, details: [] };
}
