import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { afterAll, describe, expect, test } from "vitest";
import { say } from "@/core/messages";
import { elementTypes, wordFor } from "@/core/model";
import { UseCaseError } from "@/server/kernel/useCaseError";
import { decimals, timeWords, typedDecimals } from "../controls/units";
import { answerTo } from "../kernel/ask";
import { language, locale, reasons, speak, typeWord } from ".";
import { en } from "./en";
import { spoken } from "./german";
import { languageFor } from "./languages";

const source = join(import.meta.dirname, "../..");
const isOurs = (file: string) => /\.tsx?$/.test(file) && !/\.test\.tsx?$|(^|\/)testing\//.test(file);
const parsed = (file: string) =>
  ts.createSourceFile(file, readFileSync(join(source, file), "utf8"), ts.ScriptTarget.Latest, true);

/** Every leaf of a catalogue with its path. */
const leaves = (words: object, path = ""): [string, unknown][] =>
  Object.entries(words).flatMap(([key, value]) =>
    typeof value === "object" && value !== null ? leaves(value, `${path}${key}.`) : [[`${path}${key}`, value]],
  );
const english = new Map(leaves(en));
const german = new Map(leaves(spoken.words));

/** Words that are the same in both: names, signs, formats, what is typed in one way whatever the language, and the trade's own terms. */
const same =
  /^(product|panel\.(svg|csv)|marks\.|walk\.types\.(date|dateAndTime|time|duration)|.*(csv|Csv|svg|markdown|export|saveLog|openapi|checksum|file|id|asFeel|hint|Hint|useSigns\..*|limitHints\..*|arrows|better|worse|doneHere|dot)|keys\.lists\..*\.0|exporting\.(formats|scales|papers|spreads|legends)\.\d\.0|live\.paces\.\d+\.\d)$/;

describe("the interface in German", () => {
  test("has every text that English has, and no other", () => {
    const own = /^keys\.caps\./;
    expect([...english.keys()].filter((path) => !german.has(path))).toEqual([]);
    expect([...german.keys()].filter((path) => !english.has(path) && !own.test(path))).toEqual([]);
    expect(german.size).toBeGreaterThan(1_900);
  });

  test("says each in words of its own, sentences of more than two words above all", () => {
    const kept = [...english].filter(
      ([path, words]) =>
        typeof words === "string" && words.split(" ").length > 2 && german.get(path) === words && !same.test(path),
    );
    expect(kept).toEqual([]);
    const short = [...english].filter(
      ([path, words]) =>
        typeof words === "string" && /[a-z]{3}/.test(words) && german.get(path) === words && !same.test(path),
    );
    // "Name", "Version", "Element" and their like.
    expect(
      short
        .map(([, words]) => words)
        .filter(
          (words) =>
            !/^(Name|name|Version|Element|System|Matrix|Pool|Text|Start|Format|Code|Parameter|PDF|Word|PNG|SVG|JSON|Pause|Moment|MAX|BPMN|Id|OpenAPI|Operation|Parallel|parallel|FEEL|OK|Organisation|Person|Logo|Markdown|Deutsch \(de\)|30 min|3 days|(not|count)\(\w+\))$/.test(
              String(words),
            ),
        ),
    ).toEqual([]);
  });

  test("makes its sentences of the same data", () => {
    const short = [...english].flatMap(([path, words]) => {
      const other = german.get(path);
      if (typeof words !== "function") return [];
      return typeof other === "function" && other.length <= words.length ? [] : [path];
    });
    expect(short).toEqual([]);
  });

  test("counts in the singular and the plural", () => {
    const { home, steps, check, work } = spoken.words;
    expect([1, 2].map((count) => home.processes(count))).toEqual(["1 Prozess", "2 Prozesse"]);
    expect(steps.counts(1, 2)).toBe("1 Schritt, 2 Wege");
    expect([1, 3].map((count) => check.errors(count))).toEqual([
      "1 Fehler ist zu beheben, bevor dies abgegeben werden kann.",
      "3 Fehler sind zu beheben, bevor dies abgegeben werden kann.",
    ]);
    expect(work.severalNot(2, "x")).toBe("2 Arbeiten konnten nicht getan werden: x");
  });
});

describe("what core and the server say, in German", () => {
  const codes = new Set<string>();
  const codeOf = (template: ts.TemplateLiteral) =>
    ts.isNoSubstitutionTemplateLiteral(template)
      ? template.text
      : template.head.text + template.templateSpans.map((span, at) => `{${at}}${span.literal.text}`).join("");
  for (const file of readdirSync(source, { recursive: true, encoding: "utf8" })) {
    if (!isOurs(file) || !/^(core|server|app|jobs|ui)\//.test(file)) continue;
    const visit = (node: ts.Node): void => {
      if (ts.isTaggedTemplateExpression(node) && node.tag.getText() === "say") codes.add(codeOf(node.template));
      // A refusal in one sentence is its own code.
      const told =
        ts.isNewExpression(node) && node.expression.getText() === "UseCaseError"
          ? node.arguments?.[1]
          : ts.isCallExpression(node) && node.expression.getText() === "notFound"
            ? node.arguments[0]
            : undefined;
      if (told && ts.isStringLiteral(told)) codes.add(told.text);
      ts.forEachChild(node, visit);
    };
    visit(parsed(file));
  }
  const worthSaying = [...codes].filter((code) => /[a-z]{2}/i.test(code.replace(/\{\d+\}/g, "")));

  test("has every sentence", () => {
    expect(worthSaying.length).toBeGreaterThan(1_000);
    expect(worthSaying.filter((code) => !spoken.sentences.has(code))).toEqual([]);
  });

  test("with no data but what is there, and none left out but the kind of a thing", () => {
    const places = (words: string) => new Set([...words.matchAll(/\{(\d+)\}/g)].map(([, at]) => at));
    const wrong = [...spoken.sentences].filter(([code, words]) => {
      const [there, used] = [places(code), places(words)];
      return [...used].some((at) => !there.has(at)) || [...there].some((at) => !used.has(at));
    });
    expect(wrong).toEqual([]);
  });

  test("no sentence of two words or more is English still", () => {
    expect([...spoken.sentences].filter(([code, words]) => code === words && /[a-z]{3,} [a-z]{3,}/.test(code))).toEqual(
      [],
    );
  });

  test("every kind of element has its word, with its article too", () => {
    const kinds = elementTypes.map((type) => wordFor(type));
    expect(kinds.filter((kind) => !spoken.sentences.has(kind))).toEqual([]);
    expect(spoken.sentences.get("a user task")).toBe("eine Benutzeraufgabe");
    expect(spoken.sentences.get("an exclusive gateway")).toBe("ein exklusives Gateway");
    expect(spoken.sentences.get("a sub-process")).toBe("ein Teilprozess");
  });
});

describe("no word of the interface is held from before its language is known", () => {
  /** A part of the words by its path; a word alone ends the path. */
  const at = (path: readonly string[]): unknown =>
    path.reduce<unknown>((words, key) => (words as Record<string, unknown> | undefined)?.[key], en);

  const held = readdirSync(source, { recursive: true, encoding: "utf8" })
    .filter((file) => isOurs(file) && /^(ui|app)\//.test(file) && !file.startsWith("ui/messages/"))
    .flatMap((file) => {
      const tree = parsed(file);
      const parts = new Map<string, readonly string[]>([["text", []]]);
      const pathOf = (node: ts.Node): readonly string[] | undefined => {
        if (ts.isIdentifier(node)) return parts.get(node.text);
        if (!ts.isPropertyAccessExpression(node)) return undefined;
        const before = pathOf(node.expression);
        return before && [...before, node.name.text];
      };
      const found: string[] = [];
      const visit = (node: ts.Node): void => {
        // What stands in a function is asked for when it is called.
        if (ts.isFunctionLike(node)) return;
        const path = ts.isPropertyAccessExpression(node) ? pathOf(node) : undefined;
        if (path && typeof at(path) !== "object") found.push(`${file}: ${node.getText()}`);
        if (path) {
          const isEntries =
            ts.isCallExpression(node.parent) && /^Object\.(entries|values)$/.test(node.parent.expression.getText());
          if (isEntries) found.push(`${file}: ${node.parent.getText()}`);
          if (ts.isVariableDeclaration(node.parent) && ts.isIdentifier(node.parent.name))
            parts.set(node.parent.name.text, path);
          return;
        }
        ts.forEachChild(node, visit);
      };
      if (/messages"/.test(tree.text)) for (const statement of tree.statements) visit(statement);
      return found;
    });

  test("modules hold parts", () => expect(held).toEqual([]));
});

describe("the language of a page", () => {
  test.each([
    [undefined, null, "en"],
    [undefined, "de-AT,de;q=0.9,en;q=0.8", "de"],
    [undefined, "fr, en;q=0.5, de;q=0.7", "de"],
    [undefined, "de;q=0, en", "en"],
    [undefined, "xx;;;,,", "en"],
    ["de", "en", "de"],
    ["en", "de", "en"],
    ["toString", "de", "de"],
  ])("chosen %s, asked for %s: %s", (chosen, accepted, expected) =>
    expect(languageFor(chosen, accepted)).toBe(expected),
  );
});

/** The words as they stand, to be put back: other files of tests are told in English by the same module. */
const copied = (words: object): object =>
  Object.fromEntries(
    Object.entries(words).map(([key, one]) => [key, typeof one === "object" && one !== null ? copied(one) : one]),
  );

describe("put into German", () => {
  const english = copied(en) as typeof en;
  afterAll(() => {
    speak({ language: "en", words: english, sentences: new Map() });
    expect(en.home.newProcess).toBe(english.home.newProcess);
  });
  test("whoever holds a part of the words has the German ones, and what is refused is told in German", async () => {
    const part = en.home;
    const format = en.exporting.formats[0];
    speak(spoken);
    expect(part.newProcess).toBe("Neuer Prozess");
    expect(part.processes(2)).toBe("2 Prozesse");
    expect(format[1]).toBe("PDF, für Papier");
    expect([language(), locale()]).toEqual(["de", "de"]);
    expect(typeWord("exclusiveGateway")).toBe("exklusives Gateway");
    expect(reasons([{ said: say`${{ name: "A" }} has no timer.` }])).toBe("A hat keine Zeit.");
    const refused = async (body: object) => {
      const answer = answerTo(Promise.resolve(Response.json({ error: body }, { status: 409 })));
      return answer.then(
        () => "",
        (error: Error) => error.message,
      );
    };
    const said = say`Revision ${7}`;
    const told = new UseCaseError("x", say`${said} is not in this workspace any more.`);
    const { message } = told;
    expect(await refused({ code: "x", message, said: told.said })).toBe(
      "Stand 7 ist nicht mehr in diesem Arbeitsbereich.",
    );
    expect(await refused({ code: "x", message: "This case is over." })).toBe("Dieser Fall ist vorbei.");
    expect(await refused({ code: "x", message: "What nobody foresaw." })).toBe("What nobody foresaw.");
    expect(timeWords(172_800)).toBe("2 Tage");
    expect([decimals(1.5), typedDecimals(1.5)]).toEqual(["1,5", "1.5"]);
  });
});
