import { defineConfig } from "vitest/config";
import LongestFirst from "./scripts/longestFirst";

export default defineConfig({
  resolve: {
    alias: {
      "@": new URL("./src", import.meta.url).pathname,
    },
  },
  test: {
    setupFiles: ["src/core/testing/setup.ts"],
    testTimeout: 120_000,
    // Opening a database takes seconds, more on a busy machine.
    hookTimeout: 120_000,
    // What is waited for until it is so; a window may look only once a second, and a busy machine is slow to answer.
    expect: { poll: { timeout: 25_000 } },
    pool: "forks",
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        extends: true,
        // What is computed holds no state and knows no surroundings, so one worker loads it once for all its files.
        test: { name: "core", include: ["src/core/**/*.test.ts"], isolate: false, maxWorkers: 2 },
      },
      {
        extends: true,
        oxc: { jsx: { runtime: "automatic", development: false } },
        test: {
          name: "windows",
          include: ["src/**/*.test.tsx"],
          // To load the whole interface takes as long as many a test of it: a worker does it once.
          isolate: false,
          // A good third of its time a window waits for its server.
          maxWorkers: 3,
          sequence: { groupOrder: 1 },
          globalSetup: ["scripts/preparedForTests.ts"],
          env: { NODE_ENV: "production" },
          setupFiles: ["scripts/foldersForTests.ts", "src/app/testing/reactAsShipped.ts", "src/app/testing/windows.ts"],
        },
      },
      {
        extends: true,
        test: {
          name: "application",
          include: ["src/**/*.test.ts", "scripts/**/*.test.ts"],
          exclude: ["src/core/**", "node_modules/**"],
          // To load the server and to open a workspace take longer than many a test: a worker does both once.
          isolate: false,
          // Much of its time such a test waits: for a database to open, for an answer.
          maxWorkers: 3,
          sequence: { groupOrder: 2 },
          // Made once for all files.
          globalSetup: ["scripts/preparedForTests.ts"],
          setupFiles: ["scripts/foldersForTests.ts"],
        },
      },
    ],
  },
});
