// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import {
  bpmnWith,
  clerks,
  end,
  every,
  exponential,
  inARow,
  modelOf,
  needs,
  of,
  resource,
  start,
  task,
  timeOf,
} from "@/core/forecast/testing/models";
import { scenariosOf } from "@/core/scenario";
import { importModel, storedModel } from "@/server/testing/workspace";

const file = bpmnWith(
  `${inARow(start, task("check"), end)}`,
  of("s", every(exponential(60))) + of("check", timeOf(exponential(40)) + needs("clerk")) + resource("clerk", 1, 40),
  "",
  clerks("clerk"),
).replace('baseCurrencyUnit="EUR"/>', 'baseCurrencyUnit="EUR" replication="2" seed="1"/>');

let app: Application;
let version: string;
const open = async (text = file) => {
  app = await openApplication("/", async () => {
    version = await importModel("Checking", modelOf(text));
  });
  app.goTo(`/v/${version}/forecast`);
};
afterEach(() => app.close());
const sentence = () => screen.findByTestId("forecast-sentence");
const figures = async () => {
  await app.user.click(await screen.findByRole("button", { name: /^Figures/ }));
  return screen.findByRole("group", { name: "Figures of the scenario" });
};
const scenarios = async () => scenariosOf(await storedModel(version));

describe("the Forecast stage", () => {
  test("says first what an analyst asks, and who is waited for", async () => {
    await open();
    const told = await sentence();
    expect(told.textContent).toMatch(/9 of 10 cases are done within [\d.]+ h/);
    expect(told.textContent).toContain("most of it for clerk before check");
    expect(told.textContent).toContain("One case costs");
    expect(await screen.findByRole("region", { name: "How busy people are" })).toBeDefined();
  });

  test("says that it is hours that are waited for, where nobody is busy, and what of the file cannot be used", async () => {
    const office = `<bpsim:Calendar id="office" name="office">BEGIN:VEVENT\nDTSTART:20260105T080000\nDURATION:PT8H\nRRULE:FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR\nEND:VEVENT</bpsim:Calendar>`;
    const quantity =
      '<bpsim:NumericParameter value="1" validFor="office"/><bpsim:NumericParameter value="0" validFor="holidays"/>';
    await open(
      bpmnWith(
        inARow(start, task("check"), end),
        office +
          of("s", every(exponential(30 * 1440))) +
          of("check", timeOf(exponential(40)) + needs("clerk")) +
          of(
            "clerk",
            `<bpsim:ResourceParameters><bpsim:Quantity>${quantity}</bpsim:Quantity></bpsim:ResourceParameters>`,
          ),
        "",
        clerks("clerk"),
      ),
    );
    const told = await sentence();
    expect(told.textContent).toMatch(/most of it before check, until clerk works again: 1[\d.]+ h each time\./);
    expect(told.textContent).toContain("clerk: calendar “holidays” is not there.");
    expect(told.textContent).not.toContain("in a queue of");
  });

  test("where nobody is ever free, says so instead of drawing how long nothing takes", async () => {
    await open(file.replace('NumericParameter value="1"', 'NumericParameter value="0"'));
    const told = await sentence();
    expect(told.textContent).toContain("No case came to its end.");
    expect(told.textContent).toContain("Nobody who is needed for “check” was ever free for it: no case got past it.");
    const panel = within(await screen.findByRole("region", { name: "How long a case takes" }));
    expect(panel.getByText("No case came to its end.")).toBeDefined();
    expect(panel.queryByRole("img")).toBeNull();
  });

  test("a figure that is typed is kept in the model, and the sentence follows", async () => {
    await open();
    const before = (await sentence()).textContent;
    const cell = within(await figures()).getByRole("textbox", { name: "Working time: check" });
    expect((cell as HTMLInputElement).value).toBe("40 min on average");
    await app.user.clear(cell);
    await app.user.type(cell, "5 to 10 min{Enter}");
    await waitFor(async () =>
      expect((await scenarios())[0]?.of.get("check")?.times.processing).toEqual([
        { value: { kind: "uniform", min: 300, max: 600 } },
      ]),
    );
    await waitFor(async () => expect((await sentence()).textContent).not.toBe(before));
    // One gesture, one undo.
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () =>
      expect((await scenarios())[0]?.of.get("check")?.times.processing?.[0]?.value.kind).toBe("exponential"),
    );
  });

  test("what cannot be read stays with its reason", async () => {
    await open();
    await sentence();
    const cell = within(await figures()).getByRole("textbox", { name: "Working time: check" });
    await app.user.clear(cell);
    await app.user.type(cell, "soon{Enter}");
    expect((await screen.findByRole("alert")).textContent).toContain("“soon” is no time.");
    expect((cell as HTMLInputElement).value).toBe("soon");
    await app.user.type(cell, "{Escape}");
    expect((cell as HTMLInputElement).value).toBe("40 min on average");
  });

  test("a scenario goes after another and shows what it changes", async () => {
    await open();
    await sentence();
    await app.user.click(screen.getByRole("button", { name: "New scenario" }));
    const dialog = await screen.findByRole("dialog");
    const name = within(dialog).getByRole("textbox");
    await app.user.clear(name);
    await app.user.type(name, "Two clerks");
    await app.user.click(within(dialog).getByRole("button", { name: "Add" }));
    await screen.findByText(/after One, 0 changed/);
    // It keeps the keyboard until it is gone.
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    const cell = within(await figures()).getByRole("textbox", { name: "How many: clerk" });
    await app.user.clear(cell);
    await app.user.type(cell, "2{Enter}");
    await screen.findByText(/after One, 1 changed/);
    await waitFor(async () => expect((await scenarios())[1]).toMatchObject({ name: "Two clerks", inherits: "s1" }));
    expect((await scenarios())[1]?.of.get("clerk")?.quantity).toEqual([{ value: 2 }]);
    expect((await scenarios())[0]?.of.get("clerk")?.quantity).toEqual([{ value: 1 }]);
  });

  test("figures that were not said are listed, and a process that is not sound is led to Check", async () => {
    await open(file.replace(/<bpsim:ElementParameters elementRef="s">.*?<\/bpsim:ElementParameters>/, ""));
    await sentence();
    const gaps = await screen.findByTestId("gaps");
    expect(gaps.textContent).toContain("1 figure is not said");
    expect(gaps.textContent).toContain("cases come one after the other");
    await app.close();
    await open(
      file.replace(
        '<bpmn:endEvent id="e"/>',
        '<bpmn:parallelGateway id="e"/><bpmn:sequenceFlow id="round" sourceRef="e" targetRef="e"/>',
      ),
    );
    await app.user.click(await screen.findByRole("button", { name: "To Check" }));
    expect(app.address()).toContain("/check");
  });

  test("an empty model says what to do", async () => {
    await open(
      '<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:q"><process id="p" name="Empty"/></definitions>',
    );
    await screen.findByText(/There is nothing to forecast yet/);
  });
});
