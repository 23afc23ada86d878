import { afterAll, vi } from "vitest";
import { leaveWorkspace } from "@/server/testing/workspace";
import { untell } from "@/ui/controls/notices";

// Making a database takes seconds: one serves all tests of a worker, emptied for each.
afterAll(leaveWorkspace);
// What one file was told is not told to the next one of its worker.
afterAll(() => untell());

// Charts are drawn in the browser only; what they show stands in their tables.
vi.mock("../../ui/controls/Chart", () => ({ Chart: () => null, axis: {}, ink: (token: string) => token }));
