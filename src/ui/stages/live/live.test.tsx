// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { openLive } from "@/app/testing/live";
import { chain, end, file, flow, modelOf, node, processOf, start, task } from "@/core/live/testing/models";
import { performAll } from "@/core/testing/models";
import { passTime } from "@/server/live/ticking";

const model = performAll(
  modelOf(
    file(
      processOf(
        `<laneSet id="ls"><lane id="l1" name="Front desk"><flowNodeRef>ask</flowNodeRef></lane></laneSet>${start}${task("ask")}${node("exclusiveGateway", "g")}${task("a")}${node("serviceTask", "call")}${end}${chain("s", "ask", "g")}${flow("g", "a", "power > 10", "fa")}${flow("g", "call", "power > 0", "fb")}${chain("a", "e")}${chain("call", "e")}`,
      ),
    ),
  ),
  { type: "defineData", process: "p", id: "power", name: "power", schema: '{"type":"number","minimum":-10}' },
  { type: "setDataUse", step: "ask", data: "power", use: "creates" },
  { type: "setForm", id: "ask", form: { items: [{ path: ["power"], label: "Rated power" }] } },
);

let live: Awaited<ReturnType<typeof openLive>>;
beforeEach(async () => {
  live = await openLive(model);
  await live.start();
});
afterEach(() => live.app.close());

/** The clock jumps to what comes next, once the window knows that something does. */
const toNext = async () => {
  await waitFor(() =>
    expect(screen.getByRole("button", { name: "To what comes next" })).toHaveProperty("disabled", false),
  );
  await live.press("To what comes next");
  await waitFor(async () => expect(await passTime()).toBeGreaterThan(0));
};
/** Fills in the form of the first piece of work, and completes it. */
const work = async (power: string) => {
  live.app.goTo("/work");
  const list = within(await screen.findByTestId("worklist"));
  await live.app.user.click(list.getAllByRole("button")[0] as HTMLElement);
  const field = await screen.findByRole("textbox", { name: /^Rated power/ });
  await live.app.user.clear(field);
  await live.app.user.type(field, power);
  await live.press("Done");
};

describe("the stage Live", () => {
  test("a process is started up, a case begun, worked in the worklist, and its path and audit are seen", async () => {
    const column = await live.beginCase();
    expect(column.getByText(/waits for/).textContent).toContain("ask");
    await work("20");
    await waitFor(async () => expect((await live.held()).data).toEqual({ power: 20 }));
    live.app.goTo(`/v/${live.version}/live`);
    await screen.findByTestId("run-clock");
    expect(screen.getByTestId("live-counts").textContent).toBe("1 open of 1 case");
    await live.app.user.click(screen.getByRole("radio", { name: "Cases" }));
    await live.press("Case 1");
    await waitFor(() =>
      expect(screen.getByTestId("audit").textContent).toContain("completed work ask · with Mara Aldous"),
    );
    expect(screen.getByTestId("audit").textContent).toContain("came to a");
  });

  test("a form says what is amiss, and nothing is sent before it is mended", async () => {
    await live.beginCase();
    await work("much");
    expect((await screen.findAllByRole("alert")).map((one) => one.textContent).join()).toContain(
      "A number is asked for",
    );
    expect((await live.held()).row.at).toEqual(["ask"]);
  });

  test("work whose answer is lost is done once, and the list says so when it is looked at again", async () => {
    await live.beginCase();
    live.app.next("completeWork", "unanswered");
    await work("20");
    await waitFor(async () => expect((await live.held()).row.at).toEqual(["a"]));
    await waitFor(() => expect(screen.queryByRole("button", { name: /^ask/ })).toBeNull());
    expect((await live.held()).audit.filter(({ kind }) => kind === "completed work")).toHaveLength(1);
  });

  test("an incident is seen with its reason; data is changed with a reason, without one it cannot be", async () => {
    await live.beginCase();
    await work("-5");
    live.app.goTo(`/v/${live.version}/live`);
    await live.app.user.click(await screen.findByRole("radio", { name: "Incidents 1" }));
    const incidents = within(await screen.findByTestId("incidents"));
    expect(await incidents.findByText(/no condition holds/)).toBeTruthy();
    await live.app.user.click(incidents.getByRole("button", { name: /case 1$/ }));
    await live.press("Change data");
    const dialog = within(await screen.findByRole("dialog"));
    const values = dialog.getByLabelText(/^Values/);
    await live.app.user.clear(values);
    await live.app.user.click(values);
    await live.app.user.paste('{"power": 15}');
    expect(dialog.getByRole("button", { name: "Do it" })).toHaveProperty("disabled", true);
    await live.app.user.type(dialog.getByLabelText("Why"), "mistyped");
    await live.app.user.click(dialog.getByRole("button", { name: "Do it" }));
    await waitFor(async () => expect((await live.held()).row.at).toEqual(["a"]));
    expect((await live.held()).audit.find(({ kind }) => kind === "data changed")?.reason).toBe("mistyped");
  });

  test("a stand-in that is told to fail fails into an incident, and is tried again once it answers", async () => {
    await live.app.user.click(await screen.findByRole("radio", { name: "Stand-ins" }));
    const set = async (column: string, words: string) => {
      const field = await screen.findByRole("textbox", { name: `${column}: call` });
      await live.app.user.clear(field);
      await live.app.user.type(field, words);
    };
    await set("Fails", "200 %");
    await live.press("Save: call");
    expect((await screen.findByRole("alert")).textContent).toContain("“200 %” cannot be read");
    await set("Fails", "100 %");
    await set("Tries", "1");
    await live.press("Save: call");
    await live.beginCase();
    await work("5");
    live.app.goTo(`/v/${live.version}/live`);
    await toNext();
    await waitFor(async () => expect((await live.held()).row.incidents).toBe(1));
    await live.app.user.click(await screen.findByRole("radio", { name: "Stand-ins" }));
    await set("Fails", "0 %");
    await live.press("Save: call");
    await live.app.user.click(await screen.findByRole("radio", { name: "Incidents 1" }));
    await within(await screen.findByTestId("incidents")).findByText(/the service failed/);
    await live.press("Try all again");
    await toNext();
    await waitFor(async () => expect((await live.held()).row.state).toBe("completed"));
  });

  test("simulated people work, and the table finds cases by number; a run that is ended takes no more", async () => {
    await live.press("Let people work");
    const dialog = within(await screen.findByRole("dialog"));
    await live.app.user.click(dialog.getByRole("button", { name: "Let people work" }));
    await waitFor(async () => expect((await live.theRun()).cases).toBeGreaterThan(100));
    await live.app.user.click(await screen.findByRole("radio", { name: "Cases" }));
    await live.app.user.type(await screen.findByLabelText("Number or a word of its data"), "17");
    await screen.findByRole("button", { name: "Case 17" });
    await live.press("End the run");
    await live.app.user.click(
      within(await screen.findByRole("alertdialog")).getByRole("button", { name: "End the run" }),
    );
    await waitFor(() => expect(screen.getByRole("button", { name: "Begin a case" })).toHaveProperty("disabled", true));
  });
});
