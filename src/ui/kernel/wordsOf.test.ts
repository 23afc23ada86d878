import { afterEach, expect, test, vi } from "vitest";
import { z } from "zod";
import { text } from "../messages";
import { ServerError } from "./ask";
import { wordsOf } from "./wordsOf";

afterEach(() => vi.restoreAllMocks());

test.each([
  ["what the server told", new ServerError("busy", "Somebody else is at it.", 503), "Somebody else is at it."],
  ["what was refused here", new Error("note.pdf cannot be read."), "note.pdf cannot be read."],
])("%s is told", (_, error, words) => expect(wordsOf(error)).toBe(words));

test.each([
  ["a lost connection", new TypeError("Failed to fetch")],
  ["a browser", new DOMException("The quota has been exceeded.", "QuotaExceededError")],
  ["a validator", z.number().safeParse("x").error],
  ["a mistake of ours", (() => new RangeError("Invalid array length"))()],
  ["something that is no error", "undefined is not a function"],
  ["an error without words", new Error("")],
  ["a mistake in a worker", Object.assign(new Error("x is not a function"), { name: "TypeError" })],
])("what %s says is not shown to people, and kept for who looks", (_, error) => {
  const kept = vi.spyOn(console, "error").mockImplementation(() => undefined);
  expect(wordsOf(error)).toBe(text.unknownError);
  expect(kept).toHaveBeenCalledWith(error);
});
