import { text } from "../messages";
import { ServerError } from "./ask";

/**
 * What a person is told of an error: its words where they were written for people (what the server told, what was refused here), and
 * that something went wrong where they come from a browser, a package or a mistake of ours.
 */
export function wordsOf(error: unknown): string {
  if (isForPeople(error)) return error.message;
  console.error(error);
  return text.unknownError;
}

/**
 * Whether an error was written for people. Those of other kinds ("Failed to fetch", what a validator says) are told by who made them, for
 * who reads code; one that comes out of a worker has lost its kind and kept its name.
 */
export const isForPeople = (error: unknown): error is Error =>
  error instanceof ServerError ||
  (error instanceof Error &&
    Object.getPrototypeOf(error) === Error.prototype &&
    error.name === "Error" &&
    error.message !== "");
