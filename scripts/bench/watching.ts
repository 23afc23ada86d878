import { spawn } from "node:child_process";
import { chromium } from "@playwright/test";
import type { OpenRun } from "@/contract/live";
import { type BenchRow, ms, percentile } from "./measure";

const port = 4389;
const address = `http://localhost:${port}`;

export interface Watched {
  readonly version: string;
  readonly run: string;
}

async function asked<Output>(name: string, input: unknown): Promise<Output> {
  const answer = await fetch(`${address}/api/do/${name}`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify(input),
  });
  if (!answer.ok) throw new Error(`${name}: ${await answer.text()}`);
  return (await answer.json()) as Output;
}

const pause = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/** When each number of cases was acknowledged, for whoever follows. */
type Begun = Map<number, number>;

/** Begins cases steadily and says when each was acknowledged. */
async function beginSteadily(at: Watched, every: number, seconds: number, begun: Begun): Promise<void> {
  const until = performance.now() + seconds * 1_000;
  for (let next = performance.now(); performance.now() < until; next += every) {
    await pause(Math.max(0, next - performance.now()));
    const { number } = await asked<{ number: number }>("beginLiveCase", {
      ...at,
      act: `watched ${Math.random()}`,
      values: {},
    });
    begun.set(number, performance.now());
  }
}

/** A window that follows a run as one in a browser does: told by the stream, it looks again, at most once a second. */
class FollowingWindow {
  readonly lags: number[] = [];
  looks = 0;
  private known = 0;
  private isLooking = false;
  private isToLookAgain = false;
  private lastLook = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stopped = new AbortController();

  constructor(
    private readonly at: Watched,
    private readonly begun: Begun,
  ) {}

  async open(): Promise<void> {
    this.known = (await asked<OpenRun>("openRun", this.at)).run.cases;
    const stream = await fetch(`${address}/api/events`, { signal: this.stopped.signal });
    void this.listen(stream).catch(() => undefined);
  }

  private async listen(stream: Response): Promise<void> {
    const words = new TextDecoder();
    for await (const bytes of stream.body as unknown as AsyncIterable<Uint8Array>) {
      if (!words.decode(bytes).includes("data:")) continue;
      if (this.isLooking) this.isToLookAgain = true;
      else this.soon();
    }
  }

  private soon(): void {
    this.timer ??= setTimeout(
      () => void this.look().catch(() => undefined),
      Math.max(0, this.lastLook + 1_000 - performance.now()),
    );
  }

  private async look(): Promise<void> {
    this.timer = undefined;
    this.lastLook = performance.now();
    this.looks++;
    this.isLooking = true;
    const [{ run }] = await Promise.all([
      asked<OpenRun>("openRun", this.at),
      asked("listRuns", { version: this.at.version }),
    ]);
    this.isLooking = false;
    if (this.isToLookAgain) this.soon();
    this.isToLookAgain = false;
    const seen = performance.now();
    for (let number = this.known + 1; number <= run.cases; number++) {
      const acknowledged = this.begun.get(number);
      if (acknowledged !== undefined) this.lags.push(Math.max(0, seen - acknowledged));
    }
    this.known = Math.max(this.known, run.cases);
  }

  close(): void {
    clearTimeout(this.timer);
    this.stopped.abort();
  }
}

/** Many windows follow one run at once, while something happens in it ten times a second. */
async function manyWindows(at: Watched, count: number): Promise<BenchRow> {
  const begun: Begun = new Map();
  const windows = Array.from({ length: count }, () => new FollowingWindow(at, begun));
  for (const window of windows) await window.open();
  const seconds = 10;
  const started = performance.now();
  await beginSteadily(at, 100, seconds, begun);
  const took = (performance.now() - started) / 1_000;
  await pause(8_000);
  for (const window of windows) window.close();
  const lags = windows.flatMap((window) => window.lags);
  const looks = windows.reduce((sum, window) => sum + window.looks, 0) / count / (took + 1);
  const p95 = percentile(lags, 0.95);
  return {
    what: `${count} windows follow a run in which ${(begun.size / took).toFixed(0)} cases a second begin`,
    measured: `each looks ${looks.toFixed(2)} times a second; a case is seen after ${ms(percentile(lags, 0.5))}, p95 ${ms(p95)} (${lags.length} of ${begun.size * count} seen)`,
    goal: "one look a second, seen in 2 s",
    met: looks <= 1.1 && p95 <= 2_000 && lags.length === begun.size * count,
  };
}

/** One window in a browser, on the monitor of a run with many cases. */
async function inBrowser(at: Watched, cases: string): Promise<BenchRow> {
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"],
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const open = async () => {
      const started = performance.now();
      await page.goto(`${address}/v/${at.version}/live`);
      await page.getByTestId("live-counts").waitFor({ timeout: 60_000 });
      return performance.now() - started;
    };
    await open();
    const anew = await open();
    // As one who works here opens it: from another page of the version.
    const led: number[] = [];
    for (let at = 0; at < 4; at++) {
      await page.getByRole("link", { name: /^Diagram/ }).click();
      await page.locator("[data-canvas]").waitFor({ timeout: 60_000 });
      await pause(2_000);
      const started = performance.now();
      await page.getByRole("link", { name: /^Live/ }).click();
      await page.getByTestId("live-counts").waitFor({ timeout: 60_000 });
      led.push(performance.now() - started);
    }
    const opened = Math.max(...led);
    const shown = async () =>
      Number(
        /of ([\d,]+) /.exec((await page.getByTestId("live-counts").textContent()) ?? "")?.[1]?.replaceAll(",", ""),
      );
    const lags: number[] = [];
    for (let round = 0; round < 10; round++) {
      await pause(1_500);
      const { number } = await asked<{ number: number }>("beginLiveCase", {
        ...at,
        act: `b ${Math.random()}`,
        values: {},
      });
      const began = performance.now();
      while ((await shown()) < number && performance.now() - began < 20_000) await pause(15);
      lags.push(performance.now() - began);
    }
    return {
      what: `the monitor of ${cases} cases in a browser: opened from the diagram, and how soon it follows`,
      measured: `longest ${ms(opened)} (as a page loaded anew ${ms(anew)}); median ${ms(percentile(lags, 0.5))}, longest ${ms(Math.max(...lags))}`,
      goal: "1 s each",
      met: opened <= 1_000 && Math.max(...lags) <= 1_000,
    };
  } finally {
    await browser.close();
  }
}

/** How windows follow a run of a folder that nobody has open. */
export async function watchingRows(at: Watched, cases: string): Promise<BenchRow[]> {
  const server = spawn(process.execPath, ["scripts/start.mjs"], {
    env: { ...process.env, PORT: String(port) },
    stdio: ["ignore", "pipe", "inherit"],
  });
  await new Promise<void>((resolve) =>
    server.stdout.on("data", (chunk: Buffer) => chunk.toString().includes("is ready") && resolve()),
  );
  try {
    return [await inBrowser(at, cases), await manyWindows(at, 200)];
  } finally {
    const ended = new Promise((resolve) => server.once("exit", resolve));
    server.kill();
    await ended;
  }
}
