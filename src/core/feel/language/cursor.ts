import { FeelSyntaxError } from "./syntax";

export const nameStart = /[\p{L}_?]/u;
const namePart = /[\p{L}\p{N}\p{M}_?']/u;
const keywords = new Set(
  "and or if then else for in return some every satisfies between instance of function true false null not".split(" "),
);

/** A name that an expression uses: data, a function, or a part of something (behind a dot). */
export interface UsedName {
  readonly name: string;
  readonly from: number;
  readonly to: number;
  readonly isPart: boolean;
  /** Made by the expression itself: a variable of a loop, a parameter, an entry. */
  readonly isOwn: boolean;
}

/**
 * A place in a text of FEEL, and the words and names that stand there. Names may have blanks and signs in them where they are known: the
 * longest known name that stands at a place is meant (DMN 1.5, 10.3.1.2 and 10.3.1.3; from memory).
 */
export class Cursor {
  protected at = 0;
  readonly found: Omit<UsedName, "isOwn">[] = [];
  readonly made = new Set<string>();
  /** Known names of more than one word, the longest first, and those that the expression itself makes. */
  readonly known: string[];

  /** @param guesses whether words in a row that are no known name are taken for one */
  constructor(
    readonly text: string,
    known: Iterable<string>,
    readonly guesses = false,
  ) {
    this.known = [...new Set(known)].filter((name) => name !== "" && !/^[\p{L}_?][\p{L}\p{N}\p{M}_?']*$/u.test(name));
    this.known.sort((a, b) => b.length - a.length);
  }

  /** The names that were used so far. */
  names(): UsedName[] {
    return this.found.map((one) => ({ ...one, isOwn: !one.isPart && this.made.has(one.name) }));
  }

  /** Goes back to where something was tried; what was read since is forgotten. */
  back(to: number): void {
    this.at = to;
    while ((this.found.at(-1)?.from ?? -1) >= to) this.found.pop();
  }

  end(): void {
    this.space();
    if (this.at < this.text.length) this.fail(`"${this.text.slice(this.at, this.at + 20)}" is not understood here`);
  }

  fail(message: string, at = this.at): never {
    throw new FeelSyntaxError(message, at);
  }

  space(): void {
    for (;;) {
      while (/\s/.test(this.text[this.at] ?? "")) this.at++;
      if (this.text.startsWith("//", this.at)) {
        const end = this.text.indexOf("\n", this.at);
        this.at = end < 0 ? this.text.length : end;
      } else if (this.text.startsWith("/*", this.at)) {
        const end = this.text.indexOf("*/", this.at);
        if (end < 0) this.fail("a comment does not end");
        this.at = end + 2;
      } else return;
    }
  }

  /** Takes a sign, where it stands here. */
  sign(sign: string): boolean {
    this.space();
    if (!this.text.startsWith(sign, this.at)) return false;
    this.at += sign.length;
    return true;
  }

  peek(sign: string): boolean {
    this.space();
    return this.text.startsWith(sign, this.at);
  }

  needs(sign: string): void {
    if (!this.sign(sign)) this.fail(`"${sign}" is missing`);
  }

  /** Takes a word of the language, where it stands here. */
  word(word: string): boolean {
    this.space();
    let at = this.at;
    for (const part of word.split(" ")) {
      while (/\s/.test(this.text[at] ?? "")) at++;
      if (!this.text.startsWith(part, at)) return false;
      at += part.length;
      if (namePart.test(this.text[at] ?? "")) return false;
    }
    this.at = at;
    return true;
  }

  needsWord(word: string): void {
    if (!this.word(word)) this.fail(`"${word}" is missing`);
  }

  string(): string {
    const start = this.at++;
    let value = "";
    for (;;) {
      const letter = this.text[this.at++];
      if (letter === undefined) this.fail("a text does not end", start);
      if (letter === '"') return value;
      if (letter !== "\\") {
        value += letter;
        continue;
      }
      const escaped = this.text[this.at++] ?? "";
      const plain = { n: "\n", r: "\r", t: "\t", '"': '"', "'": "'", "\\": "\\" }[escaped];
      const length = escaped === "u" ? 4 : escaped === "U" ? 6 : 0;
      const code = this.text.slice(this.at, this.at + length);
      if (plain !== undefined) value += plain;
      else if (
        length > 0 &&
        new RegExp(`^[0-9a-fA-F]{${length}}$`).test(code) &&
        Number.parseInt(code, 16) <= 0x10ffff
      ) {
        value +=
          escaped === "u"
            ? String.fromCharCode(Number.parseInt(code, 16))
            : String.fromCodePoint(Number.parseInt(code, 16));
        this.at += length;
      } else value += `\\${escaped}`;
    }
  }

  learn(name: string): void {
    this.made.add(name);
    if (/^[\p{L}_?][\p{L}\p{N}\p{M}_?']*$/u.test(name) || this.known.includes(name)) return;
    this.known.push(name);
    this.known.sort((a, b) => b.length - a.length);
  }

  /** A name that is made here: up to a word or sign that ends it. */
  newName(word: string, ...signs: readonly string[]): string {
    this.space();
    const start = this.at;
    const rest = this.text.slice(start);
    const ends = [
      ...(word === "" ? [] : [rest.search(new RegExp(`\\s${word}\\s`))]),
      ...signs.map((sign) => rest.indexOf(sign)),
    ].filter((end) => end >= 0);
    const end = ends.length > 0 ? Math.min(...ends) : -1;
    const name = (end < 0 ? "" : rest.slice(0, end)).trim().replace(/\s+/g, " ");
    if (name === "" || !nameStart.test(name[0] as string) || keywords.has(name)) this.fail("a name is missing", start);
    this.at = start + end;
    return name;
  }

  /** A name that is used: the longest known one that stands here, else a word. */
  name(isPart = false): string {
    this.space();
    const from = this.at;
    const name = this.known.find((one) => {
      const end = this.endOf(one);
      if (end !== undefined) this.at = end;
      return end !== undefined;
    });
    const found = name ?? this.unknownName();
    this.found.push({ name: found, from, to: this.at, isPart });
    return found;
  }

  unknownName(): string {
    const rest = this.text.slice(this.at);
    const [word] = /^[\p{L}_?][\p{L}\p{N}\p{M}_?']*/u.exec(rest) ?? [];
    if (word === undefined) return this.fail("a name is missing");
    if (keywords.has(word) && word !== "not" && word !== "function") this.fail(`"${word}" is not understood here`);
    this.at += word.length;
    if (!this.guesses) return word;
    const words = [word];
    for (;;) {
      const [next, more = ""] = /^\s+([\p{L}_][\p{L}\p{N}\p{M}_']*)/u.exec(this.text.slice(this.at)) ?? [];
      if (next === undefined || keywords.has(more)) return words.join(" ");
      words.push(more);
      this.at += next.length;
    }
  }

  endOf(name: string): number | undefined {
    let at = this.at;
    for (const letter of name) {
      if (letter === " ") {
        if (!/\s/.test(this.text[at] ?? "")) return undefined;
        while (/\s/.test(this.text[at] ?? "")) at++;
      } else if (this.text.startsWith(letter, at)) at += letter.length;
      else return undefined;
    }
    const isWord = namePart.test(name.at(-1) ?? "");
    return isWord && namePart.test(this.text[at] ?? "") ? undefined : at;
  }
}
