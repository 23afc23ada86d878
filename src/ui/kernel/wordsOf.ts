import { text } from "../messages";
import { ServerError } from "./ask";

/**
 * What a person is told of an error: its words where they were written for people (what the server told, what was refused here), and
 * that something went wrong where they come from a browser, a package or a mistake of ours.
 */
export function wordsOf(error: unknown): string {
  if (error instanceof ServerError) return error.message;
  // Errors of other kinds ("Failed to fetch", what a validator says) are told by those who made them, for those who read code.
  const isOurs = error instanceof Error && Object.getPrototypeOf(error) === Error.prototype && error.message !== "";
  if (isOurs) return error.message;
  console.error(error);
  return text.unknownError;
}
