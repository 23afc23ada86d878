import { bombs } from "./bombs";
import { fullDisk } from "./fullDisk";
import { killedAtFirstStart, killedWhileBuilding, killedWhileEditing } from "./kills";
import { requests } from "./requests";
import { suites } from "./suites";
import type { Tries } from "./tries";

const parts: { readonly [name: string]: () => Tries | Promise<Tries> } = {
  kills: () => killedWhileEditing(),
  builds: () => killedWhileBuilding(),
  starts: () => killedAtFirstStart(),
  races: () => suites("races of use cases, on both databases (rounds)", ["src/server/kernel/races.test.ts"], [1, 2, 3]),
  windows: () =>
    suites(
      "two windows on one version, 220 runs each (rounds)",
      ["src/ui/version/versionStore.test.ts"],
      [11, 12, 13, 14, 15],
    ),
  door: () => suites("hostile edits and commands, 7,000 each (rounds)", ["src/core/model/door.test.ts"], [21, 22, 23]),
  restores: () => suites("bent, torn and bloated backups (rounds)", ["src/server/workspace/backup.test.ts"], [31]),
  bombs: () => bombs(),
  requests: () => requests(),
  disk: () => fullDisk(),
};

const at = process.argv.indexOf("--only");
const only = at < 0 ? undefined : process.argv[at + 1];
if (only !== undefined && !parts[only]) {
  console.error(`There is no part "${only}"; there are ${Object.keys(parts).join(", ")}.`);
  process.exit(2);
}
const results: Tries[] = [];
for (const [name, run] of Object.entries(parts)) {
  if (only !== undefined && name !== only) continue;
  console.log(`${name} …`);
  results.push(await run());
}
console.log(`\n${"what".padEnd(66)}${"tries".padStart(7)}${"failures".padStart(10)}`);
for (const { what, tries, failures, leftOut } of results) {
  console.log(
    `${what.padEnd(66)}${String(tries).padStart(7)}${(leftOut ? "-" : String(failures.length)).padStart(10)}`,
  );
  if (leftOut) console.log(`    left out: ${leftOut}`);
  for (const failure of failures.slice(0, 10)) console.log(`    ${failure}`);
}
process.exit(results.some(({ failures }) => failures.length > 0) ? 1 : 0);
