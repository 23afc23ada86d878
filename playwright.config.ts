import { availableParallelism } from "node:os";
import { defineConfig } from "@playwright/test";
import { firstPort } from "./tests/e2e/test";

/** Runners of tests, each with a server and a workspace of its own. */
const runners = availableParallelism() > 1 ? 2 : 1;

export default defineConfig({
  testDir: "tests/e2e",
  timeout: 300_000,
  // Two servers, two browsers and whatever else a machine does: slowness is no fault.
  expect: { timeout: 45_000 },
  workers: runners,
  // A second attempt is only for its trace: a test that needs one has failed.
  retries: process.env.CI ? 1 : 0,
  failOnFlakyTests: true,
  reporter: [["list"]],
  outputDir: "test-results",
  use: {
    trace: "on-first-retry",
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: `node tests/e2e/servers.mjs ${firstPort} ${runners}`,
    wait: { stdout: /The servers are ready/ },
    // As long as two had, one after the other.
    timeout: 480_000,
  },
});
