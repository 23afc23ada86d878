import { bundled } from "./bundle.mjs";

/** The server's threads as one file. */
export const threadBundle = () => bundled("thread", "src/jobs/thread.ts", ["src/core", "src/jobs"]);
