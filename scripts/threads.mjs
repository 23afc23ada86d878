/** Bundles the server's threads into one file, made anew when a source is newer. */
import { existsSync } from "node:fs";
import { join } from "node:path";
import { newest, root } from "./root.mjs";

const bundle = join(root, ".lane/thread.mjs");
const sources = ["src/core", "src/jobs"].map((name) => join(root, name));

/** The bundle, up to date. */
export async function threadBundle() {
  if (existsSync(bundle) && Math.max(...sources.map(newest)) <= newest(bundle)) return bundle;
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join(root, "src/jobs/thread.ts")],
    outdir: join(root, ".lane"),
    outExtension: { ".js": ".mjs" },
    bundle: true,
    splitting: true,
    chunkNames: "thread-[name]-[hash]",
    // Programs of their own, with parts that are no script.
    external: ["@resvg/resvg-js", "pdfkit", "yaml"],
    format: "esm",
    platform: "node",
    target: "node20",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
  });
  return bundle;
}
