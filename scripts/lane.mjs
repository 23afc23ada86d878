/** `npm run lane`: runs the command from one bundled file, made anew when a source is newer, so that it starts at once. */
import { existsSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { newest, root } from "./root.mjs";

const bundle = join(root, ".lane/lane.mjs");

const sources = ["src/core", "src/cli", "src/jobs"].map((name) => join(root, name));
if (!existsSync(bundle) || Math.max(...sources.map(newest)) > newest(bundle)) {
  const { build } = await import("esbuild");
  await build({
    entryPoints: [join(root, "src/cli/lane.ts")],
    outdir: join(root, ".lane"),
    outExtension: { ".js": ".mjs" },
    bundle: true,
    splitting: true,
    // Programs of their own, with parts that are no script, and what is written for Node alone.
    external: ["@resvg/resvg-js", "pdfkit", "yaml"],
    format: "esm",
    platform: "node",
    target: "node20",
    tsconfig: join(root, "tsconfig.json"),
    logLevel: "error",
  });
}
process.env.LANE_ROOT = root;
await import(pathToFileURL(bundle).href);
