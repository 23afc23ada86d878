// @vitest-environment jsdom
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import {
  bpmnWith,
  clerks,
  every,
  flow,
  modelOf,
  needs,
  number,
  of,
  resource,
  share,
  start,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { importModel, send } from "@/server/testing/workspace";

/** A question with two answers, one of them certain; the clerk has two cases at a time. */
const file = (more = "") =>
  bpmnWith(
    `${start}${task("check")}<bpmn:exclusiveGateway id="g" name="Fine?"/>${task("mend")}<bpmn:endEvent id="e" name="Filed"/><bpmn:endEvent id="e2" name="Mended"/>${flow("1", "s", "check")}${flow("2", "check", "g")}<bpmn:sequenceFlow id="yes" name="yes" sourceRef="g" targetRef="e"/><bpmn:sequenceFlow id="no" name="no" sourceRef="g" targetRef="mend"/>${flow("3", "mend", "e2")}`,
    of("s", every(number(10)) + more) +
      of("check", timeOf(number(25)) + needs("clerk")) +
      of("mend", timeOf(number(60)) + needs("clerk")) +
      of("yes", share(1)) +
      of("no", share(0)) +
      resource("clerk", 2, 60),
    "",
    clerks("clerk"),
  ).replace('baseCurrencyUnit="EUR"/>', 'baseCurrencyUnit="EUR" replication="1" seed="1"/>');

let app: Application;
let version: string;
const open = async (text = file()) => {
  app = await openApplication("/", async () => {
    version = await importModel("Checking", modelOf(text));
  });
  app.goTo(`/v/${version}/forecast`);
  await screen.findByTestId("forecast-sentence");
  fireEvent.keyDown(document.body, { key: "o" });
  return screen.findByTestId("case-step");
};
afterEach(() => app.close());
const press = (key: string) => fireEvent.keyDown(document.body, { key });
const told = () =>
  within(screen.getByTestId("case-log"))
    .getAllByRole("row")
    .map((row) => row.textContent);

describe("one case of a forecast", () => {
  test("goes moment by moment, forwards and back, with its clock, what it waits for and what it costs", async () => {
    const step = await open();
    expect(step.textContent).toMatch(/^Moment 0 of \d+\./);
    press("End");
    await waitFor(() => expect(step.textContent).toMatch(/^\d+ moments/));
    const lines = told();
    // Case 20 comes after 200 minutes: a clerk for two at a time cannot keep up with one each 10 minutes.
    expect(lines[0]).toContain("s");
    expect(lines.join("\n")).toContain("“check” waits for clerk");
    expect(lines.join("\n")).toContain("clerk on “check”");
    expect(lines.join("\n")).toContain("Fine? → yes");
    expect(lines.at(-1)).toMatch(/Filed.*25 EUR/);
    expect(screen.getByText("No token is left: every path has come to its end.")).toBeDefined();
    press("Home");
    await waitFor(() => expect(step.textContent).toMatch(/^Moment 0 of/));
    press("ArrowRight");
    await waitFor(() => expect(step.textContent).toMatch(/^Moment 1 of/));
  });

  test("is led by hand where it can go several ways, by number or with the pointer, and says so", async () => {
    const step = await open();
    const ways = async () => {
      for (let moves = 0; moves < 12 && !screen.queryByTestId("case-ways"); moves++) {
        press("ArrowRight");
        await waitFor(() => expect(step.textContent).toContain("Moment"));
      }
      return within(screen.getByTestId("case-ways"));
    };
    expect((await ways()).getByText("by chance").closest("li")?.textContent).toContain("yes");
    press("2");
    await waitFor(() => expect(step.textContent).toContain("Led by hand."));
    press("End");
    await waitFor(() => expect(told().at(-1)).toMatch(/Mended.*85 EUR/));
    // Back to the choice, and the other way again.
    press("Home");
    await app.user.click((await ways()).getByRole("button", { name: /^yes/ }));
    await waitFor(() => expect(told().at(-1)).toContain("Fine? → yes"));
  });

  test("a case that never comes is told; another one is a click or a number away", async () => {
    await open(
      file(`<bpsim:ControlParameters><bpsim:TriggerCount>${number(21)}</bpsim:TriggerCount></bpsim:ControlParameters>`),
    );
    const at = screen.getByRole("textbox", { name: "Case" });
    await app.user.clear(at);
    await app.user.type(at, "500{Enter}");
    await screen.findByText(/No case number 500 ever comes/);
  });

  test("what somebody else changes meanwhile is taken over, without a stumble", async () => {
    const step = await open();
    press("End");
    await waitFor(() => expect(step.textContent).toMatch(/moments/));
    await send(version, { type: "rename", id: "check", name: "Look it through" });
    await waitFor(() => expect(told().join("\n")).toContain("clerk on “Look it through”"));
    await send(version, { type: "delete", ids: ["mend"] });
    await waitFor(() => expect(screen.getByTestId("case-step").textContent).toMatch(/moments|Moment/));
    expect(screen.queryByRole("alert")).toBeNull();
  });
});
