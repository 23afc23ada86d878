import type { Page } from "@playwright/test";
import { en } from "../../src/ui/messages/en";
import { spoken } from "../../src/ui/messages/german";

/** Stands for whatever a sentence is told with. */
const anything = "⁜";
const escaped = (words: string) => words.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
const pattern = (words: string) => `^${words.split(anything).map(escaped).join(".+")}$`;
/** Enough of its own words to be told from a name or a number. */
const tells = (words: string) => /[a-z]{3}/i.test(words.replaceAll(anything, ""));

/** A sentence of a catalogue, told with stand-ins; none where it needs more than words and numbers. */
function told(make: (...given: unknown[]) => unknown, given: unknown): string | undefined {
  try {
    const words = make(...Array.from({ length: make.length }, () => given));
    return typeof words === "string" && !/undefined|NaN|\[object/.test(words) ? words : undefined;
  } catch {
    return undefined;
  }
}

const isSentence = (value: unknown): value is (...given: unknown[]) => unknown => typeof value === "function";

function catalogue(words: object, others: object): string[] {
  return Object.entries(words).flatMap(([key, value]) => {
    const other: unknown = Reflect.get(others, key);
    if (typeof value === "string") return value !== other && tells(value) ? [pattern(value)] : [];
    if (isSentence(value) && isSentence(other)) {
      const own = told(value, anything);
      return own && own !== told(other, anything) && tells(own) ? [pattern(own)] : [];
    }
    return value && typeof value === "object" && other ? catalogue(value, other as object) : [];
  });
}

/** Words that are German as well: "Start" is what Home is called. */
const germanToo = (words: object): string[] =>
  Object.values(words).flatMap((value) =>
    typeof value === "string" ? [pattern(value)] : typeof value === "object" && value ? germanToo(value) : [],
  );
const both = new Set(germanToo(spoken.words));

/** Everything the interface, core and the server say in English and otherwise in German, as expressions for whole texts. */
export const englishPatterns: readonly string[] = [
  ...new Set([
    ...catalogue(en, spoken.words),
    ...[...spoken.sentences]
      // Kinds of things alone are names in models as well.
      .filter(([code, words]) => code !== words && /[a-z]{2,}.*[ .:].*[a-z]{2,}/i.test(code.replace(/\{\d+\}/g, "")))
      .map(([code]) => pattern(code.replace(/\{\d+\}/g, anything))),
  ]),
].filter((one) => !both.has(one));

/** What of a page is English still (texts, labels, titles, hints), and what does not find room. */
export function lookedThrough(page: Page, patterns: readonly string[], names: readonly string[]) {
  return page.evaluate(
    ([sources, called]) => {
      const byLength = [...called].sort((a, b) => b.length - a.length);
      const whole = new RegExp(sources.map((source) => `(?:${source})`).join("|"));
      const isShown = (element: Element) =>
        element.checkVisibility({ checkOpacity: true, checkVisibilityCSS: true }) &&
        !element.closest("[data-canvas] svg, svg [data-id], .ProseMirror, nextjs-portal, [lang=en]:not(html)");
      const english = new Set<string>();
      const cut = new Set<string>();
      const look = (words: string | null | undefined) => {
        const text = (words ?? "").replace(/\s+/g, " ").trim();
        if (text === "" || called.includes(text) || !whole.test(text)) return;
        // What somebody called something is in their language.
        const rest = byLength.reduce((left, name) => left.replaceAll(name, "·"), text);
        if (/[a-z]{3}/i.test(rest) && whole.test(rest)) english.add(text);
      };
      for (const element of document.querySelectorAll("body *")) {
        if (!isShown(element)) continue;
        for (const name of ["aria-label", "title", "placeholder", "alt"]) look(element.getAttribute(name));
        const own = [...element.childNodes].filter(
          (node) => node.nodeType === Node.TEXT_NODE && node.textContent?.trim(),
        );
        for (const node of own) look(node.textContent);
        if (own.length === 0 || element.closest("svg, [aria-hidden=true], .sr-only, option, script, style")) continue;
        // Words that lie outside of the frame that holds them, or are cut by it: what ends in dots says the rest when pointed at.
        const range = document.createRange();
        range.setStartBefore(own[0] as Node);
        range.setEndAfter(own.at(-1) as Node);
        const words = range.getBoundingClientRect();
        if (words.width === 0) continue;
        const style = getComputedStyle(element);
        if (style.clip !== "auto" || style.clipPath !== "none") continue;
        const box = element.getBoundingClientRect();
        const isCut =
          element.scrollWidth > element.clientWidth + 1 &&
          element.clientWidth > 0 &&
          style.overflowX !== "visible" &&
          !["auto", "scroll"].includes(style.overflowX) &&
          style.textOverflow !== "ellipsis";
        const frame = element.closest("button, a, [role=button], [role=tab], [role=radio], label");
        const held = frame?.getBoundingClientRect();
        const isOut =
          held !== undefined &&
          getComputedStyle(frame as Element).display !== "inline" &&
          style.textOverflow !== "ellipsis" &&
          (words.right > held.right + 1.5 || words.left < held.left - 1.5) &&
          box.width > 0;
        if (isCut || isOut)
          cut.add(
            `${(element.textContent ?? "").trim().slice(0, 60)} (${Math.round(words.width)} in ${Math.round((held ?? box).width)})`,
          );
      }
      const beyond = document.documentElement.scrollWidth - document.documentElement.clientWidth;
      return { english: [...english], cut: [...cut], beyond };
    },
    [patterns, names] as const,
  );
}

/** Everything that somebody called something in these files: they are in the language of who wrote them. */
export function namesIn(files: readonly string[]): string[] {
  const plain = (name: string) =>
    name.trim().replaceAll("&quot;", '"').replaceAll("&#39;", "'").replaceAll("&amp;", "&");
  const found = files.flatMap((file) => [...file.matchAll(/(?:name|state)="([^"]+)"|>([^<>]+)</g)]);
  const names = found.map(([, name, text]) => plain(name ?? text ?? ""));
  return [...new Set(names)].filter((name) => name.length > 2);
}
