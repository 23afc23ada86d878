// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { type Model, outgoingOf } from "@/core/model";
import { expectOk, performAll, smallModel } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";

let app: Application;
let version: string;
const open = async (model?: Model) => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications", model);
  });
  app.goTo(`/v/${version}/walk`);
  await screen.findByTestId("walk-now");
};
afterEach(() => app.close());

const outcome = (words: string | RegExp) =>
  waitFor(() => expect(screen.getByTestId("walk-outcome").textContent).toMatch(words));
/** Goes on until a way has to be chosen; gives the number of the step. */
async function toDecision(): Promise<number> {
  for (let step = 0; step < 8; step++) {
    if (screen.getByTestId("walk-outcome").textContent?.includes("Choose")) break;
    await app.user.keyboard("{ArrowRight}");
    await outcome(/Step \d/);
  }
  return Number(/Step (\d+)\./.exec(screen.getByTestId("walk-outcome").textContent ?? "")?.[1]);
}
const now = () => screen.getByTestId("walk-now").textContent;
const marked = (means: string) =>
  [...document.querySelectorAll(`[data-means="${means}"]`)].map((one) => one.getAttribute("data-on"));
const tests = async () => (await run<{ tests: { name: string }[] }>("listWalkTests", { version })).tests;

describe("the Walk stage", () => {
  test("a case goes step by step, forward and back, and the drawing shows where it stands and was", async () => {
    await open();
    expect(now()).toContain("Application received");
    expect(marked("token")).toEqual(["start"]);
    await app.user.keyboard("{ArrowRight}");
    await outcome("Step 1.");
    await waitFor(() => expect(marked("token")).toContain("check"));
    expect(marked("walked")).toEqual(["f1"]);
    const at = await toDecision();
    expect(marked("way").length).toBe(2);
    // Nothing goes on before a way is chosen.
    await app.user.keyboard("{ArrowRight}");
    await outcome(`Step ${at}.`);
    await app.user.keyboard("1");
    await outcome(`Step ${at + 1}.`);
    await app.user.keyboard("{ArrowLeft}{ArrowLeft}");
    await outcome(`Step ${at - 1} of ${at + 1}`);
    await app.user.keyboard("{Home}");
    await outcome(`Step 0 of ${at + 1}`);
    expect(marked("walked")).toEqual([]);
  });

  test("a walk that was played is kept, fails when the process changes, and is told why", async () => {
    await open();
    await toDecision();
    await app.user.keyboard("1");
    for (let step = 0; step < 8; step++) await app.user.keyboard("{ArrowRight}");
    await outcome("come to its end");
    await app.user.click(screen.getByRole("button", { name: "Keep this walk" }));
    const dialog = await screen.findByRole("dialog");
    await app.user.clear(within(dialog).getByLabelText("Name"));
    await app.user.type(within(dialog).getByLabelText("Name"), "The usual way");
    await app.user.click(within(dialog).getByRole("button", { name: "Keep this walk" }));
    const kept = () => screen.getByTestId("kept-walks").querySelector("li");
    await waitFor(() => expect(kept()?.getAttribute("data-verdict")).toBe("passes"));
    expect((await tests()).map(({ name }) => name)).toEqual(["The usual way"]);
    await send(version, {
      type: "insertOnFlow",
      diagram: "page",
      flow: "f1",
      id: "look",
      newFlow: "f-look",
      kind: { type: "task" },
      name: "Look at it",
    }).catch(() => send(version, { type: "delete", ids: ["approve"] }));
    await waitFor(() => expect(kept()?.getAttribute("data-verdict")).not.toBe("passes"));
    expect(kept()?.textContent).toMatch(/passed now|is gone|no longer/);
  });

  test("keeping one is taken back by name, and brought again", async () => {
    await open();
    await app.user.click(await screen.findByRole("button", { name: "Suggest walks" }));
    await app.user.click(await screen.findByRole("button", { name: /^Keep these \d+ walks$/ }));
    await waitFor(async () => expect((await tests()).length).toBeGreaterThan(1));
    const many = (await tests()).length;
    await waitFor(() => expect(screen.queryByRole("dialog")).toBeNull());
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await tests()).toEqual([]));
    await app.user.keyboard("{Control>}y{/Control}");
    await waitFor(async () => expect(await tests()).toHaveLength(many));
  });

  test("walks that somebody else keeps or deletes are seen", async () => {
    await open();
    await run("keepWalkTests", {
      version,
      tests: [{ name: "From elsewhere", content: { process: "none", told: {}, outcome: "completed", path: null } }],
    });
    expect(await screen.findByText("From elsewhere")).toBeTruthy();
    const [test] = await run<{ tests: { id: string }[] }>("listWalkTests", { version }).then(({ tests: all }) => all);
    await run("deleteWalkTest", { version, test: test?.id });
    await waitFor(() => expect(screen.queryByText("From elsewhere")).toBeNull());
  });

  test("where no condition holds and there is no default, the case is stuck and says so; another value leads it on", async () => {
    const model = smallModel();
    const [first, second] = outgoingOf(model, "decide").map(({ id }) => id);
    await open(
      performAll(
        model,
        { type: "setCondition", flow: String(first), text: "power > 10", isExecutable: true },
        { type: "setCondition", flow: String(second), text: "power < 5", isExecutable: true },
      ),
    );
    await toDecision();
    const power = screen.getByLabelText("power");
    expect(power.getAttribute("placeholder")).toBe("number");
    await app.user.type(power, "seven");
    expect(screen.getByText(/^A number is asked for here/)).toBeTruthy();
    await outcome("Choose how it goes on.");
    await app.user.clear(power);
    await app.user.type(power, "7");
    await outcome("The case is stuck.");
    expect(now()).toContain("no condition holds here");
    expect(now()).not.toContain("Nothing can happen any more");
    await app.user.clear(power);
    await app.user.type(power, "12");
    await outcome("Under way.");
  });

  test("steps of a called process keep their names when it is over", async () => {
    const content = `<process id="whole" name="Whole case"><startEvent id="s"/><callActivity id="c" name="Do the rest" calledElement="rest"/><endEvent id="e" name="Over"/><sequenceFlow id="f" sourceRef="s" targetRef="c"/><sequenceFlow id="g" sourceRef="c" targetRef="e"/></process><process id="rest" name="The rest"><startEvent id="rs"/><task id="rt" name="Read the meter"/><endEvent id="re"/><sequenceFlow id="rf" sourceRef="rs" targetRef="rt"/><sequenceFlow id="rg" sourceRef="rt" targetRef="re"/></process>`;
    const xml = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="definitions" targetNamespace="x">${content}</definitions>`;
    await open(expectOk(readBpmn(new TextEncoder().encode(xml))));
    for (let step = 0; step < 14; step++) await app.user.keyboard("{ArrowRight}");
    await outcome("come to its end");
    const log = screen.getByTestId("walk-log").textContent;
    expect(log).toContain("Read the meter");
    expect(log).not.toMatch(/\brt\b/);
  });
});
