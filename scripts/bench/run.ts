/**
 * `npm run bench`: the figures of speed and size, each beside its goal. Ratios are taken in one run. `npm run bench -- --live` prints one
 * part, `--core` everything but the browser.
 */
import { briefRows } from "./brief";
import { browserRows } from "./browser";
import { compareRows } from "./compare";
import { coreRows } from "./core";
import { decisionRows } from "./decisions";
import { evidenceRows } from "./evidence";
import { forecastRows } from "./forecast";
import { growthRow } from "./growth";
import { handoffRows } from "./handoff";
import { homeRows, importRow, streamRow, tokenRow } from "./house";
import { layoutRows } from "./layout";
import { liveRows } from "./live";
import type { BenchRow } from "./measure";
import { soundnessRows } from "./soundness";

const parts: Readonly<Record<string, () => BenchRow[] | Promise<BenchRow[]>>> = {
  model: coreRows,
  brief: briefRows,
  compare: compareRows,
  soundness: soundnessRows,
  layout: layoutRows,
  forecast: forecastRows,
  handoff: handoffRows,
  decisions: decisionRows,
  evidence: evidenceRows,
  live: liveRows,
  house: async () => [
    tokenRow(),
    await growthRow(),
    ...(await homeRows()),
    ...(await importRow()),
    ...(await importRow(20, 10_000)),
    await streamRow(),
  ],
  browser: browserRows,
};

const asked = Object.keys(parts).filter((part) => process.argv.includes(`--${part}`));
const wanted = asked.length > 0 ? asked : Object.keys(parts);
for (const part of wanted) {
  if (part === "browser" && process.argv.includes("--core")) continue;
  for (const { what, measured, goal, met } of (await parts[part]?.()) ?? [])
    console.log(`${met ? "  " : "! "}${what}\n      ${measured}   (goal: ${goal})`);
}
