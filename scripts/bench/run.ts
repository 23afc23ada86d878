/** `npm run bench`: the figures of speed and size, each beside its goal. Ratios are taken in one run. */
import { briefRows } from "./brief";
import { browserRows } from "./browser";
import { compareRows } from "./compare";
import { coreRows } from "./core";
import { decisionRows } from "./decisions";
import { forecastRows } from "./forecast";
import { growthRow } from "./growth";
import { handoffRows } from "./handoff";
import { homeRows, importRow, streamRow, tokenRow } from "./house";
import { layoutRows } from "./layout";
import { liveRows } from "./live";
import type { BenchRow } from "./measure";
import { soundnessRows } from "./soundness";

const print = ({ what, measured, goal, met }: BenchRow) =>
  console.log(`${met ? "  " : "! "}${what}\n      ${measured}   (goal: ${goal})`);
if (!process.argv.includes("--browser")) {
  for (const row of coreRows()) print(row);
  for (const row of briefRows()) print(row);
  for (const row of compareRows()) print(row);
  for (const row of soundnessRows()) print(row);
  for (const row of await layoutRows()) print(row);
  for (const row of forecastRows()) print(row);
  for (const row of handoffRows()) print(row);
  for (const row of decisionRows()) print(row);
  for (const row of await liveRows()) print(row);
  print(tokenRow());
  print(await growthRow());
  for (const row of await homeRows()) print(row);
  for (const row of await importRow()) print(row);
  for (const row of await importRow(20, 10_000)) print(row);
  print(await streamRow());
}
if (!process.argv.includes("--core")) for (const row of await browserRows()) print(row);
