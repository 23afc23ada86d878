import { test as base } from "@playwright/test";

export { expect, type Page } from "@playwright/test";

/** The first of the servers' ports; each runner of tests has a server and a workspace of its own. */
export const firstPort = 4399;

export const test = base.extend({
  // biome-ignore lint/correctness/noEmptyPattern: the runner reads from the pattern what is needed.
  baseURL: async ({}, use, { parallelIndex }) => use(`http://localhost:${firstPort + parallelIndex}`),
});
