// @vitest-environment jsdom
import { screen } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { importModel, run } from "@/server/testing/workspace";
import { daysFromToday, today } from "../kernel/today";

let app: Application | undefined;
afterEach(() => app?.close());
const dayIn = (days: number) =>
  new Date(Date.parse(`${today()}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
const me = async () => (await run<{ me: string }>("listMembers", {})).me;

describe("a review that waits for one's answer", () => {
  test("is said once, when its day is near, with the way to it; others are not", async () => {
    let version = "";
    app = await openApplication("/", async () => {
      for (const [name, days] of [
        ["Near", 1],
        ["Over", -2],
        ["Far", 5],
      ] as const) {
        version = await importModel(name);
        await run("askReview", { version, review: name, reviewers: [await me()], question: "", due: dayIn(days) });
      }
      version = await importModel("Open");
      await run("askReview", { version, review: "open", reviewers: [await me()], question: "", due: null });
    });
    await screen.findByText(/^A review of Near waits for your answer until tomorrow\.$/);
    await screen.findByText(/^A review of Over waits for your answer, and its day is over\.$/);
    expect(screen.getAllByRole("button", { name: "To the review" })).toHaveLength(2);
    expect(screen.queryByText(/^A review of (?:Far|Open)/)).toBeNull();
    // On another page nothing is said again.
    app?.goTo("/directory");
    await screen.findByRole("heading", { name: "Directory" });
    expect(screen.queryAllByText(/^A review of Near/).length).toBeLessThanOrEqual(1);
  });

  test.each([
    [0, 0],
    [1, 1],
    [-3, -3],
    [400, 400],
  ])("%i days from today is so many days", (days, wanted) => expect(daysFromToday(dayIn(days))).toBe(wanted));
});
