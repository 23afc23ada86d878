import { afterAll, vi } from "vitest";
import { leaveWorkspace } from "@/server/testing/workspace";

// Making a database takes seconds: one serves all tests of a worker, emptied for each.
afterAll(leaveWorkspace);

// Charts are drawn in the browser only; what they show stands in their tables.
vi.mock("../../ui/controls/Chart", () => ({ Chart: () => null, axis: {}, ink: (token: string) => token }));
