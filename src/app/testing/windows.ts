import { afterAll, vi } from "vitest";
import { closeWorkspace } from "@/server/testing/workspace";

// Making a database takes seconds: one serves all tests of a file, emptied for each, and goes with the file.
afterAll(closeWorkspace);

// Charts are drawn in the browser only; what they show stands in their tables.
vi.mock("../../ui/controls/Chart", () => ({ Chart: () => null, axis: {}, ink: (token: string) => token }));
