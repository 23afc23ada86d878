import { threadBundle } from "./threads.mjs";

/** Before any test: the threads of the server are made of what the sources are now. */
export default async function setup(): Promise<void> {
  process.env.LANE_THREADS = await threadBundle();
}
