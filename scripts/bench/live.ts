import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { sql } from "drizzle-orm";
import type { OpenCase } from "@/contract/live";
import type { CaseData } from "@/core/feel";
import { sampleValues } from "@/core/live";
import { type StoredModel, trustStored } from "@/core/model";
import { seededRandom } from "@/core/testing/randomProcess";
import { closeDatabase, database } from "@/data/database";
import { localMember, runUseCase, useCases, workspaceReady } from "@/server";
import { backgroundDone } from "@/server/kernel/background";
import { endThreads } from "@/server/kernel/threads";
import { type BenchRow, ms, percentile } from "./measure";
import { watchingRows } from "./watching";

const run = <Output>(name: keyof typeof useCases, input: unknown) =>
  runUseCase(localMember, useCases[name] as never, input) as Promise<Output>;

async function took(work: () => Promise<unknown>): Promise<number> {
  const started = performance.now();
  await work();
  return performance.now() - started;
}

const place = { version: "", run: "bench" };
let acts = 0;

/**
 * The transaction of a step without the step: its case is read and locked, and the rows that a step of this process writes are written, each
 * by a plain statement: the case, the wait that is over, the next one, five events.
 */
async function bare(): Promise<void> {
  const { db } = await database();
  const number = ++acts;
  await db.transaction(async (own) => {
    const [row] = (await own.execute(sql`select content from live_cases where run = 'bench' and number = 1 for update`))
      .rows as { content: object }[];
    await own.execute(sql`select * from live_waits where run = 'bench' and number = 1`);
    await own.execute(
      sql`update live_cases set content = ${JSON.stringify(row?.content)}::jsonb where run = 'bench' and number = 1`,
    );
    await own.execute(sql`delete from live_waits where run = 'none' and number = ${number - 1}`);
    await own.execute(
      sql`insert into live_waits (run, number, wait, version, kind, element, label, role_name, since) values ('none', ${number}, 1, 'none', 'work', 'step', 'Record the plant', 'Front desk', 0)`,
    );
    const events = [0, 1, 2, 3, 4].map(
      (sequence) => sql`('none', ${number}, ${sequence}, 'none', 'bare', 0, 'step', ${sequence})`,
    );
    await own.execute(
      sql`insert into live_events (run, number, sequence, version, kind, at, element, wait) values ${sql.join(events, sql`, `)}`,
    );
  });
}

/** Milliseconds that the completion of a case's first work takes, by its form, and bare transactions between. */
async function steps(count: number): Promise<{ readonly step: number; readonly plain: number }> {
  const [taken, plain]: [number[], number[]] = [[], []];
  const random = seededRandom(1);
  while (taken.length < count) {
    const { number } = await run<{ number: number }>("beginLiveCase", { ...place, act: `b${++acts}`, values: {} });
    const { waits } = await run<OpenCase>("openCase", { ...place, number });
    const [wait] = waits;
    if (!wait) throw new Error("The case waits for nothing.");
    const work = { ...place, number, wait: wait.wait };
    const { model, data } = await run<{ model: StoredModel; data: CaseData }>("openWork", work);
    const values = sampleValues(trustStored(model), wait.element, data, random, Date.now());
    taken.push(await took(() => run("completeWork", { ...work, act: `s${++acts}`, values })));
    plain.push(await took(bare));
  }
  return { step: percentile(taken, 0.5), plain: percentile(plain, 0.5) };
}

/** Ten times as many cases as there are, by copying them. */
async function tenfold(): Promise<void> {
  const { db } = await database();
  const [known] = (await db.execute(sql`select cases from runs where id = 'bench'`)).rows as { cases: number }[];
  const cases = known?.cases ?? 0;
  for (const table of ["live_cases", "live_waits", "live_events"]) {
    const { rows } = (await db.execute(
      sql`select column_name from information_schema.columns where table_name = ${table} order by ordinal_position`,
    )) as unknown as { rows: { column_name: string }[] };
    const names = rows.map(({ column_name: name }) => name);
    const copied = names.map((name) => (name === "number" ? `number + copies.nth * ${cases}` : name));
    await db.execute(
      sql.raw(
        `insert into ${table} (${names.join(", ")}) select ${copied.join(", ")} from ${table}, generate_series(1, 9) as copies(nth) where run = 'bench' and number <= ${cases}`,
      ),
    );
  }
  await db.execute(sql`update runs set cases = ${cases * 10} where id = 'bench'`);
  await db.execute(sql`analyze`);
}

async function monitor(cases: string): Promise<BenchRow> {
  const open = async () => {
    await run("openRun", place);
    await run("listCases", { ...place, state: "open" });
  };
  const first = await took(open);
  const again: number[] = [];
  for (let at = 0; at < 10; at++) {
    // A window looks at most once a second.
    await new Promise((resolve) => setTimeout(resolve, 1_000));
    again.push(await took(open));
  }
  return {
    what: `the monitor of ${cases} cases, its diagram and its open cases`,
    measured: `first ${ms(first)}, then p95 ${ms(percentile(again, 0.95))}`,
    goal: "1 s",
    met: Math.max(first, ...again) <= 1_000,
  };
}

/** Runs in the server: what a step costs, many cases by simulated members, and the monitor over them. */
export async function liveRows(): Promise<BenchRow[]> {
  process.env.LANE_DATA = mkdtempSync(join(tmpdir(), "lane-bench-"));
  process.env.LANE_DEMO = "";
  (globalThis as { laneReady?: unknown }).laneReady = undefined;
  await workspaceReady();
  await backgroundDone();
  const { db } = await database();
  const [demo] = (await db.execute(sql`select version from runs limit 1`)).rows as { version: string }[];
  place.version = demo?.version ?? "";
  await run("startRun", { ...place, name: "Bench", pace: 0 });
  const few = await steps(60);
  const presses: number[] = [];
  for (let at = 0; at < 5; at++)
    presses.push(await took(() => run("runStaff", { ...place, days: 3_650, most: 2_000 })));
  const many = await steps(60);
  const rows: BenchRow[] = [
    {
      what: "a step of a case, beside its transaction alone, with the same rows",
      measured: `${ms(few.step)}, ${ms(few.plain)} (${(few.step / few.plain).toFixed(1)} times)`,
      goal: "3 times",
      met: few.step <= 3 * few.plain,
    },
    {
      what: "10,000 cases by simulated members, 2,000 at a time",
      measured: presses.map((time) => `${(time / 1_000).toFixed(1)} s`).join(", "),
      goal: "minutes, each as long as the first (at most 1.5 times)",
      met: Math.max(...presses) <= 1.5 * (presses[0] ?? 0),
    },
    {
      what: "a step beside 10,000 cases, and without them",
      measured: `${ms(many.step)}, ${ms(few.step)}`,
      goal: "no more than twice",
      met: many.step <= 2 * few.step,
    },
    await monitor("10,000"),
  ];
  await tenfold();
  rows.push(await monitor("100,000"));
  await backgroundDone();
  await closeDatabase();
  await endThreads();
  return [...rows, ...(await watchingRows(place, "100,000"))];
}
