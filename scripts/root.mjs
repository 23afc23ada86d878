import { dirname } from "node:path";
import { fileURLToPath } from "node:url";

/** The project's folder. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)));
