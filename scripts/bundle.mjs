import { existsSync, mkdirSync, renameSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { newest, root } from "./root.mjs";

/**
 * A program of the sources as one file with its parts beside it, made anew when a source is newer; gives its path. Several that start
 * at once may each make it: parts are called by what is in them, each file is put in its place whole, and the program last of all.
 * `LANE_BUNDLES` says another folder for it.
 */
export async function bundled(name, entry, folders) {
  const place = process.env.LANE_BUNDLES ?? join(root, ".lane");
  const bundle = join(place, `${name}.mjs`);
  const changed = Math.max(...folders.map((folder) => newest(join(root, folder))));
  if (existsSync(bundle) && changed <= newest(bundle)) return bundle;
  const { build } = await import("esbuild");
  const { outputFiles } = await build({
    entryPoints: { [name]: join(root, entry) },
    outdir: place,
    outExtension: { ".js": ".mjs" },
    write: false,
    bundle: true,
    splitting: true,
    chunkNames: `${name}-[name]-[hash]`,
    // Programs of their own, with parts that are no script, and what is written for Node alone.
    external: ["@resvg/resvg-js", "pdfkit", "yaml"],
    format: "esm",
    platform: "node",
    target: "node20",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
  });
  mkdirSync(place, { recursive: true });
  const isLast = ({ path }) => Number(path === bundle);
  for (const { path, contents } of outputFiles.sort((one, other) => isLast(one) - isLast(other))) {
    const making = `${path}.${process.pid}`;
    writeFileSync(making, contents);
    renameSync(making, path);
  }
  return bundle;
}
