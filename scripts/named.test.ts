import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { rules } from "@/core/check";
import { register } from "@/core/commands/kernel/register";
import { jobModules } from "@/jobs";
import { fileUseCases, useCases } from "@/server";

/** All tests there are, as one text. */
const texts = ["src", "scripts", "tests"]
  .flatMap((folder) => readdirSync(folder, { recursive: true }).map((name) => join(folder, String(name))))
  .filter((path) => /\.(test|spec)\.tsx?$/.test(path) && !path.endsWith("named.test.ts"))
  .map((path) => readFileSync(path, "utf8"))
  .join("\n");
const unnamed = (names: readonly string[]) =>
  names.filter((name) => !new RegExp(`["'\`. (]${name.replace(/[.*+?^$()|[\]\\]/g, "\\$&")}\\b`).test(texts));

describe("nothing is without a test that names it", () => {
  test("commands", () => {
    const types = Object.entries(register).map(([type, { schema }]) => {
      // Each stands in the register under its own name.
      expect(schema.shape.type.value).toBe(type);
      return type;
    });
    expect(types.length).toBeGreaterThan(50);
    expect(unnamed(types)).toEqual([]);
  });
  test("rules", () => expect(unnamed(rules.map((rule) => rule.id))).toEqual([]));
  test("use cases", () => expect(unnamed(Object.keys({ ...useCases, ...fileUseCases }))).toEqual([]));
  test("jobs", () => expect(unnamed(Object.keys(jobModules))).toEqual([]));
});
