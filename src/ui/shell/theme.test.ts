import { readdirSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import { semanticTokens, tokens } from "@chakra-ui/react/theme";
import { describe, expect, test } from "vitest";
import { system } from "./theme";

/** Names of colours and sizes, as they are written where something is drawn. */
const namesIn = (one: typeof system) =>
  new Set(
    one.tokens.allTokens
      .filter(({ extensions }) => !extensions.virtual && ["colors", "sizes"].includes(extensions.category ?? ""))
      .map(({ extensions }) => extensions.prop as string),
  );

/** All the library has, of which this look takes a part. */
const whole = createSystem(defaultBaseConfig, defineConfig({ theme: { tokens, semanticTokens } }));
const gone = [...namesIn(whole)].filter((name) => !namesIn(system).has(name));

const textsIn = (folder: string, isOurs: (path: string) => boolean) =>
  readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter(isOurs)
    .map((path) => readFileSync(join(folder, path), "utf8"));

const library = dirname(createRequire(import.meta.url).resolve("@chakra-ui/react/theme"));
const recipes = new Set(
  [...Object.keys(system._config.theme?.recipes ?? {}), ...Object.keys(system._config.theme?.slotRecipes ?? {})].map(
    (name) => `${name.replaceAll(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`,
  ),
);
const recipesOfOurs = readdirSync(library, { recursive: true, encoding: "utf8" }).filter((path) =>
  [...recipes].some((name) => path.endsWith(`recipes/${name}.js`) || path.endsWith(`recipes/${name}.cjs`)),
);

describe("the look", () => {
  test("leaves out what is not drawn with: no page, and no component of the library that is used, names it", () => {
    expect(gone.length).toBeGreaterThan(150);
    expect(recipesOfOurs.length).toBeGreaterThanOrEqual(recipes.size);
    const texts = [
      ...textsIn("src/ui", (path) => /(?<!\.test)\.tsx?$/.test(path)),
      ...textsIn("src/app", (path) => /(?<!\.test)\.tsx?$/.test(path)),
      ...recipesOfOurs.map((path) => readFileSync(join(library, path), "utf8")),
    ].join("\n");
    // As a text of its own, with a share of the ground, or after the kind of name it is.
    const named = new Set(
      [...texts.matchAll(/["'`{](?:colors\.|sizes\.)?([\w.-]+(?:\/\d+)?)["'`}]/g)].map(([, name]) => name),
    );
    const isNamed = (name: string) => named.has(name) || [...named].some((one) => one?.replace(/\/\d+$/, "") === name);
    expect(gone.filter(isNamed)).toEqual([]);
  });

  test("has a colour for every part that is drawn, by day and by night", () => {
    const conditions = new Map<string, Set<string>>();
    for (const { extensions } of system.tokens.allTokens) {
      if (extensions.category !== "colors" || !extensions.conditions) continue;
      const found = conditions.get(extensions.prop as string) ?? new Set();
      conditions.set(extensions.prop as string, found.add(extensions.condition as string));
    }
    expect(conditions.size).toBeGreaterThan(20);
    for (const [name, found] of conditions) expect([name, ...found].sort()).toEqual([name, "_dark", "_light"].sort());
  });
});
