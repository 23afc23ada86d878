// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { ReviewRow } from "@/contract/review";
import { smallModel } from "@/core/testing/models";
import { localMember, type Member, runUseCase, useCases } from "@/server";
import { importModel, run, send } from "@/server/testing/workspace";
import { useCommentsShown } from "../../version/comments/store";

let app: Application;
let version: string;
const oran: Member = { ...localMember, id: "oran", name: "Oran Veltri" };
beforeEach(async () => {
  useCommentsShown.setState({ isOpen: false, part: "comments", filter: "open" });
  app = await openApplication("/", async () => {
    version = await importModel("Applications", smallModel());
    await run("setMember", { id: "oran", name: "Oran Veltri", roles: [] });
  });
});
afterEach(() => app.close());

const rounds = async () => (await run<{ reviews: ReviewRow[] }>("listReviews", { version })).reviews;
const open = async () => {
  app.goTo(`/v/${version}/diagram?comments=review`);
  return within(await screen.findByTestId("reviews"));
};

describe("a review in a window", () => {
  test("is asked for, answered elsewhere, holds, and lapses with the next change", async () => {
    const column = await open();
    expect(await column.findByText("No review has been asked for.")).toBeTruthy();
    expect(column.getByRole("button", { name: "Ask for a review" })).toHaveProperty("disabled", true);
    await app.user.click(column.getByRole("checkbox", { name: "Oran Veltri" }));
    await app.user.type(column.getByLabelText("Question"), "Is it right?");
    await app.user.click(column.getByRole("button", { name: "Ask for a review" }));
    await column.findByText("Waiting for answers");
    expect(column.getByText("Oran Veltri").parentElement?.textContent).toContain("has not answered yet");
    const [round] = await rounds();
    const answer = { version, review: round?.id, answer: "approve", note: "Well done" };
    await runUseCase(oran, useCases.answerReview as never, answer);
    await column.findByText("Approved");
    const review = () => screen.getByTestId("review");
    await expect.poll(() => review().getAttribute("data-holds")).toBe("true");
    expect(review().textContent).toContain("holds for what is here now");
    await send(version, { type: "rename", id: "check", name: "Look" });
    await expect.poll(() => review().getAttribute("data-holds")).toBe("false");
    expect(review().textContent).toContain("changed since");
    const link = column.getByRole("link", { name: "What has changed since" });
    expect(link.getAttribute("href")).toBe(`/v/${version}/compare?from=${version}@${round?.revision}&to=${version}`);
  });

  test("one who is asked answers; a rejection needs its reason; who asked withdraws", async () => {
    const asked = { version, review: "r", reviewers: ["member-local"], question: "", due: "2027-03-01" };
    await runUseCase(oran, useCases.askReview as never, asked);
    const column = await open();
    await app.user.click(await column.findByRole("button", { name: "Reject" }));
    expect(await screen.findByText(/Say in a note/)).toBeTruthy();
    expect((await rounds())[0]?.state).toBe("asked");
    await app.user.type(column.getByLabelText("Note"), "The deadline is missing.");
    await app.user.click(column.getByRole("button", { name: "Reject" }));
    await column.findByText("Rejected");
    expect(column.queryByRole("button", { name: "Withdraw" })).toBeNull();
    await app.user.click(column.getByRole("button", { name: "Approve" }));
    await waitFor(async () => expect((await rounds())[0]?.state).toBe("approved"));
  });

  test("what waits for somebody stands on the page of work, the overdue marked", async () => {
    const asked = { version, review: "r", reviewers: ["member-local"], question: "Fine?", due: "2020-03-01" };
    await runUseCase(oran, useCases.askReview as never, asked);
    app.goTo("/work");
    const mine = within(await screen.findByTestId("my-reviews"));
    expect(mine.getByText("1 review waits for you")).toBeTruthy();
    expect(mine.getByText(/2020-03-01 \(overdue\)/)).toBeTruthy();
    expect(mine.getByRole("link", { name: "Applications: As-is" }).getAttribute("href")).toContain("comments=review");
  });

  test("asked for once more when the answer was lost, it is one round", async () => {
    const column = await open();
    await app.user.click(await column.findByRole("checkbox", { name: "Oran Veltri" }));
    app.next("askReview", "unanswered");
    await app.user.click(column.getByRole("button", { name: "Ask for a review" }));
    await column.findByText("Waiting for answers");
    expect(await rounds()).toHaveLength(1);
  });
});
