import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { afterAll } from "vitest";
import { aside } from "./aside";

/**
 * What a file of tests puts aside goes when it has ended: databases, files, what killed processes left. A whole run would leave
 * about two gigabytes, more than some machines have free. Files that share a worker each have their own, beside the last one's.
 */
process.env.LANE_TESTS_ASIDE ??= aside();
const folder = mkdtempSync(join(process.env.LANE_TESTS_ASIDE, "lane-tests-"));
// A database server runs as another user, who has to find its own folder in here.
chmodSync(folder, 0o711);
process.env.TMPDIR = folder;
/** What the application is told by its surroundings; a file that tells it something else does not tell the next one. */
const told = () => Object.entries(process.env).filter(([name]) => /^LANE_(?!DATA$)|^DATABASE_URL$/.test(name));
const before = new Map(told());
// First said, so done last: after what the tests themselves close.
afterAll(() => {
  for (const [name] of told()) if (!before.has(name)) delete process.env[name];
  for (const [name, value] of before) process.env[name] = value;
  rmSync(folder, { recursive: true, force: true, maxRetries: 3 });
});
