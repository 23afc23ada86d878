/** `npm run lane`: runs the command from one bundled file, so that it starts at once. */
import { pathToFileURL } from "node:url";
import { bundled } from "./bundle.mjs";
import { root } from "./root.mjs";

const bundle = await bundled("lane", "src/cli/lane.ts", ["src/core", "src/cli", "src/jobs"]);
process.env.LANE_ROOT = root;
await import(pathToFileURL(bundle).href);
