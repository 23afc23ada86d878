import { readdirSync, statSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

/** The project's folder. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** When anything in a folder, or a file, was last written. */
export function newest(path) {
  const found = statSync(path);
  if (!found.isDirectory()) return found.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}
