import { readFileSync, realpathSync, statSync } from "node:fs";
import { basename, dirname, join, sep } from "node:path";
import { type DescriptionFile, descriptionLimits } from "@/core/descriptions";
import { callerPath, readBytes } from "./input";

/** A description with the files in its folder or below, also where links lead: none outside is opened. */
export function descriptionFile(path: string): DescriptionFile {
  const bytes = readBytes(path);
  const folder = realpathSync(dirname(callerPath(path)));
  return {
    name: basename(path),
    bytes,
    beside: (name) => {
      try {
        const real = realpathSync(join(folder, name));
        if (!real.startsWith(folder + sep) || !statSync(real).isFile()) return undefined;
        return statSync(real).size > descriptionLimits.bytes ? undefined : readFileSync(real);
      } catch {
        return undefined;
      }
    },
  };
}
