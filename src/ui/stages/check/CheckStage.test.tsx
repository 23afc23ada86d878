// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { expectOk } from "@/core/testing/models";
import { importModel, run, send, storedModel } from "@/server/testing/workspace";

/** A step named by a noun, and two ways that meet without waiting for each other. */
const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Values">
  <startEvent id="start" name="Plant switched on"/><parallelGateway id="part"/><userTask id="record" name="Documentation of values"/>
  <userTask id="order" name="Order meter"/><exclusiveGateway id="meet"/><userTask id="tell" name="Tell household"/><endEvent id="end" name="Values written down"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="part"/><sequenceFlow id="f2" sourceRef="part" targetRef="record"/><sequenceFlow id="f3" sourceRef="part" targetRef="order"/>
  <sequenceFlow id="f4" sourceRef="record" targetRef="meet"/><sequenceFlow id="f5" sourceRef="order" targetRef="meet"/><sequenceFlow id="f6" sourceRef="meet" targetRef="tell"/><sequenceFlow id="f7" sourceRef="tell" targetRef="end"/>
</process></definitions>`;

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Values", expectOk(readBpmn(new TextEncoder().encode(file))));
  });
  app.goTo(`/v/${version}/check`);
};
afterEach(() => app.close());

const ruleOf = (rule: string) => document.querySelector<HTMLElement>(`[data-rule="${rule}"]`);
const finding = (rule: string) =>
  waitFor(() => {
    const found = ruleOf(rule);
    if (!found) throw new Error(`no ${rule}`);
    return found;
  });
const waivers = async () => (await run<{ waivers: { reason: string }[] }>("openCheck", { version })).waivers;

describe("the Check stage", () => {
  test("what is found stands in its group, worst first, and typing narrows it", async () => {
    await open();
    expect((await finding("lack-of-synchronization")).textContent).toContain("Tell household runs twice");
    expect((await finding("verb-and-object")).textContent).toContain("“Documentation of values”");
    const order = [...document.querySelectorAll("[data-rule]")].map((one) => one.getAttribute("data-rule"));
    expect(order.indexOf("lack-of-synchronization")).toBeLessThan(order.indexOf("verb-and-object"));
    expect(screen.getByRole("button", { name: "Sign the verdict" })).toHaveProperty("disabled", true);
    await app.user.type(screen.getByRole("textbox", { name: "Filter findings" }), "twice");
    await waitFor(() => expect(ruleOf("verb-and-object")).toBeNull());
    expect(ruleOf("lack-of-synchronization")).not.toBeNull();
  });

  test("the drawing stands above: the first finding framed, with its run; another one when it is chosen, here or there", async () => {
    await open();
    await finding("lack-of-synchronization");
    const page = await screen.findByTestId("checked-page");
    const framed = () => [...page.querySelectorAll("[data-means=finding]")].map((one) => one.getAttribute("data-on"));
    const steps = () => page.querySelectorAll("[data-means=runStep]").length;
    await waitFor(() => expect(framed()).toEqual(["meet"]));
    expect(steps()).toBeGreaterThan(3);
    const other = within(await finding("verb-and-object")).getByRole("button", {
      name: /Documentation of values/,
      pressed: false,
    });
    await app.user.click(other);
    await waitFor(() => expect(framed()).toEqual(["record"]));
    expect(steps()).toBe(0);
    expect(other.getAttribute("aria-pressed")).toBe("true");
  });

  test("a finding is accepted with a reason, kept by the server, and open again when that is taken back", async () => {
    await open();
    await app.user.click(within(await finding("verb-and-object")).getByRole("button", { name: "Accept" }));
    const dialog = await screen.findByRole("dialog");
    await app.user.type(within(dialog).getByLabelText("Reason"), "The crew calls it so");
    await app.user.click(within(dialog).getByRole("button", { name: "Accept" }));
    await waitFor(async () => expect((await finding("verb-and-object")).textContent).toContain("The crew calls it so"));
    await waitFor(async () => expect((await waivers()).map(({ reason }) => reason)).toEqual(["The crew calls it so"]));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await waivers()).toEqual([]));
    await waitFor(async () => expect((await finding("verb-and-object")).textContent).not.toContain("The crew"));
    await app.user.keyboard("{Control>}y{/Control}");
    await waitFor(async () => expect(await waivers()).toHaveLength(1));
  });

  test("an acceptance whose answer is lost is told, and what is shown is what the server holds", async () => {
    await open();
    await app.user.click(within(await finding("verb-and-object")).getByRole("button", { name: "Accept" }));
    const dialog = await screen.findByRole("dialog");
    await app.user.type(within(dialog).getByLabelText("Reason"), "So be it");
    app.next("waive", "unanswered");
    await app.user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await waivers()).toHaveLength(1);
    await waitFor(async () => expect((await finding("verb-and-object")).textContent).toContain("So be it"));
  });

  test("one whose question is lost on the way is told, and not shown as accepted", async () => {
    await open();
    await app.user.click(within(await finding("verb-and-object")).getByRole("button", { name: "Accept" }));
    const dialog = await screen.findByRole("dialog");
    await app.user.type(within(dialog).getByLabelText("Reason"), "So be it");
    app.next("waive", "lost");
    await app.user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    expect(await waivers()).toEqual([]);
    expect((await finding("verb-and-object")).textContent).not.toContain("Accepted");
  });

  test("a repair is looked at in place: what it changes is framed, what the check would say is told, and nothing is done yet", async () => {
    await open();
    const row = await finding("lack-of-synchronization");
    await app.user.click(within(row).getByRole("button", { name: "Preview" }));
    const bar = await screen.findByRole("region", { name: "As it would be" });
    await waitFor(() => expect(within(bar).getByTestId("repair-effect").textContent).toMatch(/^It helps: \d/));
    const page = screen.getByTestId("checked-page");
    expect(page.querySelector('[data-means=repaired][data-on="meet"]')).not.toBeNull();
    expect(page.querySelectorAll("[data-means=runStep]")).toHaveLength(0);
    expect((await storedModel(version)).elements.get("meet")?.type).toBe("exclusiveGateway");
    await app.user.keyboard("{Escape}");
    await waitFor(() => expect(screen.queryByRole("region", { name: "As it would be" })).toBeNull());
    expect(page.querySelectorAll("[data-means=runStep]").length).toBeGreaterThan(0);
    await app.user.click(within(row).getByRole("button", { name: "Preview" }));
    await app.user.click(await screen.findByRole("button", { name: "Apply the repair" }));
    await waitFor(async () => expect((await storedModel(version)).elements.get("meet")?.type).toBe("parallelGateway"));
    await waitFor(() => expect(ruleOf("lack-of-synchronization")).toBeNull());
  });

  test("a repair is made, its finding goes, and undo brings both back", async () => {
    await open();
    const found = await finding("lack-of-synchronization");
    await app.user.click(within(found).getByRole("button", { name: /^Let it wait for all of them/ }));
    await waitFor(() => expect(ruleOf("lack-of-synchronization")).toBeNull());
    await waitFor(async () => expect((await storedModel(version)).elements.get("meet")?.type).toBe("parallelGateway"));
    await app.user.keyboard("{Control>}z{/Control}");
    expect(await finding("lack-of-synchronization")).toBeTruthy();
    await waitFor(async () => expect((await storedModel(version)).elements.get("meet")?.type).toBe("exclusiveGateway"));
  });

  test("what somebody else mends or accepts is seen without asking", async () => {
    await open();
    await finding("lack-of-synchronization");
    await send(version, { type: "retype", id: "meet", to: "parallelGateway" });
    await waitFor(() => expect(ruleOf("lack-of-synchronization")).toBeNull());
    const found = await finding("verb-and-object");
    await run("waive", { version, finding: "verb-and-object:record", reason: "Said elsewhere" });
    await waitFor(() => expect(found.textContent).toContain("Said elsewhere"));
  });

  test("a verdict is signed when no error is open, and lapses with the next change", async () => {
    await open();
    await finding("lack-of-synchronization");
    await send(version, { type: "retype", id: "meet", to: "parallelGateway" });
    const sign = await screen.findByRole("button", { name: "Sign the verdict" });
    await waitFor(() => expect(sign).toHaveProperty("disabled", false));
    await app.user.click(sign);
    await waitFor(() => expect(screen.getByTestId("signed").textContent).toMatch(/^Signed by .* as revision \d+\.$/));
    await send(version, { type: "rename", id: "order", name: "Order the meter" });
    await waitFor(() => expect(screen.getByTestId("signed").textContent).toContain("has lapsed"));
  });

  test("what is checked for is chosen, kept, and taken back", async () => {
    await open();
    await finding("verb-and-object");
    const profile = async () => (await run<{ profile: string }>("openCheck", { version })).profile;
    await app.user.selectOptions(screen.getByLabelText("checked for"), "draft");
    await waitFor(async () => expect(await profile()).toBe("draft"));
    await app.user.keyboard("{Control>}z{/Control}");
    await waitFor(async () => expect(await profile()).toBe("review"));
    await waitFor(() => expect(screen.getByLabelText("checked for")).toHaveProperty("value", "review"));
  });

  test("a rule that is not asked any more finds nothing, in every process, until it is put back", async () => {
    await open();
    await finding("verb-and-object");
    await app.user.click(screen.getByRole("button", { name: "Rules" }));
    const rules = await screen.findByRole("dialog");
    await app.user.type(within(rules).getByLabelText("Filter rules"), "verb");
    const review = within(rules).getByLabelText(/verb.* review$/i);
    await app.user.selectOptions(review, "off");
    await app.user.click(within(rules).getByRole("button", { name: "Close" }));
    await waitFor(() => expect(ruleOf("verb-and-object")).toBeNull());
    await app.user.keyboard("{Control>}z{/Control}");
    expect(await finding("verb-and-object")).toBeTruthy();
  });

  test("where two answers mend it a person chooses, and sees each before it is made", async () => {
    const decision = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Meters">
      <startEvent id="s" name="Order came"/><exclusiveGateway id="g" name="Enough?"/><userTask id="a" name="Order meter"/><userTask id="b" name="Take meter"/><endEvent id="e" name="Meter ordered"/><endEvent id="f" name="Meter taken"/>
      <sequenceFlow id="f1" sourceRef="s" targetRef="g"/><sequenceFlow id="no" name="no" sourceRef="g" targetRef="a"><conditionExpression>meters &lt; 1</conditionExpression></sequenceFlow>
      <sequenceFlow id="yes" name="yes" sourceRef="g" targetRef="b"><conditionExpression>meters &gt; 0</conditionExpression></sequenceFlow><sequenceFlow id="f4" sourceRef="a" targetRef="e"/><sequenceFlow id="f5" sourceRef="b" targetRef="f"/></process></definitions>`;
    app = await openApplication("/", async () => {
      version = await importModel("Meters", expectOk(readBpmn(new TextEncoder().encode(decision))));
    });
    app.goTo(`/v/${version}/check`);
    const row = await finding("no-default");
    await app.user.click(within(row).getByRole("button", { name: "Mend: one of 2 ways" }));
    const bar = await screen.findByRole("region", { name: "As it would be" });
    const yes = within(bar).getByRole("button", { name: "Make “yes” the default" });
    expect(within(bar).getByRole("button", { name: "Make “no” the default" }).getAttribute("aria-pressed")).toBe(
      "true",
    );
    await app.user.click(yes);
    await waitFor(() =>
      expect(within(bar).getByTestId("repair-effect").textContent).toMatch(/^It helps: .*none comes/),
    );
    expect((await storedModel(version)).elements.get("g")?.default).toBeUndefined();
    await app.user.click(within(bar).getByRole("button", { name: "Apply the repair" }));
    await waitFor(async () => expect((await storedModel(version)).elements.get("g")?.default).toBe("yes"));
    // A default is taken when no condition holds, so it has none of its own.
    expect((await storedModel(version)).elements.get("yes")?.conditionExpression).toBeUndefined();
  });
});
