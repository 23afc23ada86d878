// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import type { Figure } from "@/core/drawing";
import { useFiguresBehindNaming } from "./useFiguresBehindNaming";

afterEach(cleanup);

const figures = (...ids: string[]) =>
  ids.map((id) => ({ id, bounds: { x: 0, y: 0, width: 80, height: 60 } }) as Figure);
interface Given {
  readonly drawn: readonly Figure[];
  readonly naming: string | null;
}

/** What is drawn from the first render after a change on, one after the other. */
async function drawnAfter(before: Given, after: Given): Promise<string[]> {
  const seen: string[] = [];
  const { rerender } = renderHook(
    ({ drawn, naming }: Given) => {
      seen.push(
        useFiguresBehindNaming(drawn, naming)
          .map(({ id }) => id)
          .join(" "),
      );
    },
    { initialProps: before },
  );
  seen.length = 0;
  await act(async () => rerender(after));
  return seen;
}

const [old, more] = [figures("a", "b"), figures("a", "new", "b")];

test("a step that was just added and is being named is drawn a moment after the place for its name", async () => {
  const seen = await drawnAfter({ drawn: old, naming: null }, { drawn: more, naming: "new" });
  expect(seen[0]).toBe("a b");
  expect(seen.at(-1)).toBe("a new b");
});

test.each<[string, Given, Given]>([
  ["nothing is named", { drawn: old, naming: null }, { drawn: more, naming: null }],
  ["what is named was there", { drawn: old, naming: "a" }, { drawn: more, naming: "a" }],
  ["what is named is on no page", { drawn: old, naming: null }, { drawn: more, naming: "elsewhere" }],
])("everything is drawn at once where %s", async (_, before, after) => {
  expect(new Set(await drawnAfter(before, after))).toEqual(new Set(["a new b"]));
});
