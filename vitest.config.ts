import { defineConfig } from "vitest/config";

export default defineConfig({
  resolve: {
    alias: {
      "@": new URL("./src", import.meta.url).pathname,
    },
  },
  test: {
    include: ["src/**/*.test.{ts,tsx}", "scripts/**/*.test.ts"],
    // Made once for all files.
    globalSetup: ["scripts/preparedForTests.ts"],
    setupFiles: ["src/core/testing/setup.ts", "scripts/foldersForTests.ts"],
    testTimeout: 60_000,
    // Opening a database takes seconds, more on a busy machine.
    hookTimeout: 120_000,
    pool: "forks",
    // Half of the time a test waits: for a database to open, for an answer.
    maxWorkers: 2,
  },
});
