/** Where something stands that no database or file can hold: a NUL, half of a character (a surrogate alone), endless nesting. */
export interface Unstorable {
  readonly path: string;
  readonly what: "a NUL character" | "half of a character" | "more levels than a model has";
}

/** Foreign content of a file is nested 256 levels deep at most, each of them a node, its element and a list. */
const mostLevels = 800;

const half = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

const wrongWith = (text: string): Unstorable["what"] | undefined =>
  text.includes("\u0000") ? "a NUL character" : half.test(text) ? "half of a character" : undefined;

/** The first text in a value, keys included, that cannot be stored. O(size), without recursion: depth is the sender's. */
export function unstorableIn(value: unknown): Unstorable | undefined {
  const open: [path: string, value: unknown, level: number][] = [["", value, 0]];
  for (let next = open.pop(); next; next = open.pop()) {
    const [path, here, level] = next;
    if (level > mostLevels) return { path: path.slice(0, 60), what: "more levels than a model has" };
    if (typeof here === "string") {
      const what = wrongWith(here);
      if (what) return { path, what };
    } else if (Array.isArray(here))
      for (let at = here.length - 1; at >= 0; at--) open.push([`${path}[${at}]`, here[at], level + 1]);
    else if (here !== null && typeof here === "object" && !ArrayBuffer.isView(here))
      for (const [key, field] of Object.entries(here).reverse()) {
        const what = wrongWith(key);
        if (what) return { path: `${path}, a name`, what };
        open.push([path === "" ? key : `${path}.${key}`, field, level + 1]);
      }
  }
  return undefined;
}
