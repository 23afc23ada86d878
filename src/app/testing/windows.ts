import type { ReactNode } from "react";
import { afterAll, vi } from "vitest";
import { leaveWorkspace } from "@/server/testing/workspace";
import { untell } from "@/ui/controls/notices";

// Making a database takes seconds: one serves all tests of a worker, emptied for each.
afterAll(leaveWorkspace);
// What one file was told is not told to the next one of its worker.
afterAll(() => untell());

// Charts are drawn in the browser only; what they show stands in their tables.
vi.mock("../../ui/controls/Chart", () => ({ Chart: () => null, axis: {}, ink: (token: string) => token }));

// Nothing is laid out here, and no test asks a sheet: elements have the names of their styles, which are written nowhere.
vi.mock("../../ui/shell/StyleRegistry", async () => {
  const { createElement } = await import("react");
  const { default: createCache } = await import("@emotion/cache");
  const { CacheProvider } = await import("@emotion/react");
  const cache = createCache({ key: "lane" });
  cache.insert = (_, { name }) => {
    cache.inserted[name] = true;
  };
  const StyleRegistry = (props: { readonly children: ReactNode }) =>
    createElement(CacheProvider, { value: cache }, props.children);
  return { StyleRegistry };
});
