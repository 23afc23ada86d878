// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import type { OpenCase, RunRow } from "@/contract/live";
import { chain, end, file, flow, modelOf, node, processOf, start, task } from "@/core/live/testing/models";
import { performAll } from "@/core/testing/models";
import { passTime } from "@/server/live/ticking";
import { importModel, run } from "@/server/testing/workspace";

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

let app: Application;
let version = "";
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Plant", model);
  });
  app.goTo(`/v/${version}/live`);
};
afterEach(() => app.close());

const press = async (name: string | RegExp, within_ = screen) =>
  app.user.click(await within_.findByRole("button", { name }));
const started = async () => {
  await open();
  await press("Start it up");
  const dialog = within(await screen.findByRole("dialog"));
  await app.user.selectOptions(dialog.getByLabelText("Pace"), "0");
  await app.user.click(dialog.getByRole("button", { name: "Start" }));
  await screen.findByTestId("run-clock");
};
const beginCase = async () => {
  await press("Begin a case");
  const dialog = within(await screen.findByRole("dialog"));
  await app.user.click(dialog.getByRole("button", { name: "Begin" }));
  return within(await screen.findByTestId("live-case"));
};
/** The clock jumps to what comes next, once the window knows that something does. */
const toNext = async () => {
  await waitFor(() =>
    expect(screen.getByRole("button", { name: "To what comes next" })).toHaveProperty("disabled", false),
  );
  await press("To what comes next");
  await waitFor(async () => expect(await passTime()).toBeGreaterThan(0));
};
const theRun = async () => (await run<{ runs: RunRow[] }>("listRuns", { version })).runs[0] as RunRow;
const held = async (number = 1) => run<OpenCase>("openCase", { version, run: (await theRun()).id, number });
/** Fills in the form of the first piece of work, and completes it. */
const work = async (power: string) => {
  app.goTo("/work");
  const list = within(await screen.findByTestId("worklist"));
  await app.user.click(list.getAllByRole("button")[0] as HTMLElement);
  const field = await screen.findByRole("textbox", { name: /^Rated power/ });
  await app.user.clear(field);
  await app.user.type(field, power);
  await press("Done");
};

describe("the stage Live", () => {
  test("a process is started up, a case begun, worked in the worklist, and its path and audit are seen", async () => {
    await started();
    const column = await beginCase();
    expect(column.getByText(/waits for/).textContent).toContain("ask");
    await work("20");
    await waitFor(async () => expect((await held()).data).toEqual({ power: 20 }));
    app.goTo(`/v/${version}/live`);
    await screen.findByTestId("run-clock");
    expect(screen.getByTestId("live-counts").textContent).toBe("1 open of 1 case");
    await app.user.click(screen.getByRole("radio", { name: "Cases" }));
    await press("Case 1");
    await waitFor(() =>
      expect(screen.getByTestId("audit").textContent).toContain("completed work ask · with Mara Aldous"),
    );
    expect(screen.getByTestId("audit").textContent).toContain("came to a");
  });

  test("a form says what is amiss, and nothing is sent before it is mended", async () => {
    await started();
    await beginCase();
    await work("much");
    expect((await screen.findAllByRole("alert")).map((one) => one.textContent).join()).toContain(
      "A number is asked for",
    );
    expect((await held()).row.at).toEqual(["ask"]);
  });

  test("work whose answer is lost is done once, and the list says so when it is looked at again", async () => {
    await started();
    await beginCase();
    app.next("completeWork", "unanswered");
    await work("20");
    await waitFor(async () => expect((await held()).row.at).toEqual(["a"]));
    await waitFor(() => expect(screen.queryByRole("button", { name: /^ask/ })).toBeNull());
    expect((await held()).audit.filter(({ kind }) => kind === "completed work")).toHaveLength(1);
  });

  test("an incident is seen with its reason; data is changed with a reason, without one it cannot be", async () => {
    await started();
    await beginCase();
    await work("-5");
    app.goTo(`/v/${version}/live`);
    await app.user.click(await screen.findByRole("radio", { name: "Incidents 1" }));
    const incidents = within(await screen.findByTestId("incidents"));
    expect(await incidents.findByText(/no condition holds/)).toBeTruthy();
    await app.user.click(incidents.getByRole("button", { name: /case 1$/ }));
    await press("Change data");
    const dialog = within(await screen.findByRole("dialog"));
    const values = dialog.getByLabelText(/^Values/);
    await app.user.clear(values);
    await app.user.click(values);
    await app.user.paste('{"power": 15}');
    expect(dialog.getByRole("button", { name: "Do it" })).toHaveProperty("disabled", true);
    await app.user.type(dialog.getByLabelText("Why"), "mistyped");
    await app.user.click(dialog.getByRole("button", { name: "Do it" }));
    await waitFor(async () => expect((await held()).row.at).toEqual(["a"]));
    expect((await held()).audit.find(({ kind }) => kind === "data changed")?.reason).toBe("mistyped");
  });

  test("a stand-in that is told to fail fails into an incident, and is tried again once it answers", async () => {
    await started();
    await app.user.click(await screen.findByRole("radio", { name: "Stand-ins" }));
    const set = async (column: string, words: string) => {
      const field = await screen.findByRole("textbox", { name: `${column}: call` });
      await app.user.clear(field);
      await app.user.type(field, words);
    };
    await set("Fails", "200 %");
    await press("Save: call");
    expect((await screen.findByRole("alert")).textContent).toContain("“200 %” cannot be read");
    await set("Fails", "100 %");
    await set("Tries", "1");
    await press("Save: call");
    await beginCase();
    await work("5");
    app.goTo(`/v/${version}/live`);
    await toNext();
    await waitFor(async () => expect((await held()).row.incidents).toBe(1));
    await app.user.click(await screen.findByRole("radio", { name: "Stand-ins" }));
    await set("Fails", "0 %");
    await press("Save: call");
    await app.user.click(await screen.findByRole("radio", { name: "Incidents 1" }));
    await within(await screen.findByTestId("incidents")).findByText(/the service failed/);
    await press("Try all again");
    await toNext();
    await waitFor(async () => expect((await held()).row.state).toBe("completed"));
  });

  test("simulated people work, and the table finds cases by number; a run that is ended takes no more", async () => {
    await started();
    await press("Let people work");
    const dialog = within(await screen.findByRole("dialog"));
    await app.user.click(dialog.getByRole("button", { name: "Let people work" }));
    await waitFor(async () => expect((await theRun()).cases).toBeGreaterThan(100));
    await app.user.click(await screen.findByRole("radio", { name: "Cases" }));
    await app.user.type(await screen.findByLabelText("Number or a word of its data"), "17");
    await screen.findByRole("button", { name: "Case 17" });
    await press("End the run");
    await app.user.click(within(await screen.findByRole("alertdialog")).getByRole("button", { name: "End the run" }));
    await waitFor(() => expect(screen.getByRole("button", { name: "Begin a case" })).toHaveProperty("disabled", true));
  });
});
