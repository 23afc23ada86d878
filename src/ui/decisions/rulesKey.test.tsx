// @vitest-environment jsdom
import type { KeyboardEvent } from "react";
import { describe, expect, test } from "vitest";
import type { TableSheet } from "@/core/decisions";
import { rulesKey } from "./rulesKey";
import type { At } from "./TableView";

const sheet = {
  inputs: [{ text: "power", type: "number" }],
  outputs: [{ name: "visit", type: "boolean" }],
  notes: [{ name: "Why" }],
  rules: [
    { inputs: ["< 3"], outputs: ["false"], notes: ["small"] },
    { inputs: [">= 3"], outputs: ["true"], notes: ["large"] },
  ],
} as unknown as TableSheet;

/** What a key does from a cell: where it leads, and the rules as it leaves them. */
function press(
  keys: string,
  [rule, column]: readonly [number, number],
  more: { readonly isHead?: boolean; readonly editing?: At["editing"] } = {},
) {
  const target = document.createElement("td");
  if (!more.isHead) target.dataset.rule = String(rule);
  const parts = keys.split("+");
  let [at, put, label, isStopped]: [At, TableSheet, string, boolean] = [
    { rule, column, editing: more.editing ?? null },
    sheet,
    "",
    false,
  ];
  const event = {
    target,
    key: parts.at(-1),
    ctrlKey: parts.includes("Ctrl"),
    metaKey: false,
    altKey: parts.includes("Alt"),
    shiftKey: parts.includes("Shift"),
    preventDefault: () => {
      isStopped = true;
    },
  };
  rulesKey(event as unknown as KeyboardEvent, {
    sheet,
    at,
    setAt: (next) => {
      at = next;
    },
    put: (said, next) => {
      [label, put] = [said, next];
      return true;
    },
  });
  const rules = put.rules.map(({ inputs, outputs, notes }) => [...inputs, ...outputs, ...notes].join(" | "));
  return { to: [at.rule, at.column], editing: at.editing, rules, label, isStopped };
}

describe("keys in the sheet of rules", () => {
  // The line behind the last rule, number 2, is for a new one.
  test.each<[keys: string, from: readonly [number, number], to: readonly [number, number]]>([
    ["ArrowDown", [0, 1], [1, 1]],
    ["ArrowDown", [2, 1], [2, 1]],
    ["ArrowUp", [0, 1], [0, 1]],
    ["ArrowLeft", [1, 0], [1, 0]],
    ["ArrowRight", [1, 2], [1, 2]],
    ["Home", [1, 2], [1, 0]],
    ["End", [1, 0], [1, 2]],
    ["Tab", [0, 2], [1, 0]],
    ["Shift+Tab", [1, 0], [0, 2]],
  ])("%s from %j leads to %j", (keys, from, to) => {
    const after = press(keys, from);
    expect(after.to).toEqual(to);
    expect(after.isStopped).toBe(true);
    expect(after.label).toBe("");
  });

  test.each([
    ["Tab", [2, 2]],
    ["Shift+Tab", [0, 0]],
  ] as const)("%s at an end leaves the sheet", (keys, from) => {
    expect(press(keys, from)).toMatchObject({ to: from, isStopped: false });
  });

  test.each<[keys: string, from: readonly [number, number], rules: string[], to: readonly [number, number]]>([
    ["Ctrl+ArrowDown", [0, 1], [">= 3 | true | large", "< 3 | false | small"], [1, 1]],
    ["Ctrl+ArrowUp", [1, 1], [">= 3 | true | large", "< 3 | false | small"], [0, 1]],
    ["Ctrl+d", [0, 0], ["< 3 | false | small", "< 3 | false | small", ">= 3 | true | large"], [1, 0]],
    ["Ctrl+Delete", [0, 0], [">= 3 | true | large"], [0, 0]],
    ["Ctrl+Enter", [0, 0], ["< 3 | false | small", "- |  | ", ">= 3 | true | large"], [1, 0]],
    ["Delete", [0, 0], ["- | false | small", ">= 3 | true | large"], [0, 0]],
    ["Delete", [0, 1], ["< 3 |  | small", ">= 3 | true | large"], [0, 1]],
  ])("%s at %j leaves %j", (keys, from, rules, to) => {
    const after = press(keys, from);
    expect(after.rules).toEqual(rules);
    expect(after.to).toEqual(to);
    expect(after.label).not.toBe("");
  });

  test("Enter writes a cell on, a letter writes it anew", () => {
    expect(press("Enter", [0, 0]).editing).toEqual({ start: null });
    expect(press("F2", [0, 0]).editing).toEqual({ start: null });
    expect(press("x", [0, 0]).editing).toEqual({ start: "x" });
  });

  test.each([
    ["a letter with Alt", "Alt+x", {}],
    ["a key no sheet knows", "Shift", {}],
    ["any key in a head", "Delete", { isHead: true }],
    ["any key while a cell is written", "Delete", { editing: { start: "a" } }],
  ])("%s does nothing", (_, keys, more) => {
    const after = press(keys, [0, 0], more);
    expect(after).toMatchObject({ to: [0, 0], label: "", isStopped: false });
  });
});
