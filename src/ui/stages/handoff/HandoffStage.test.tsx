// @vitest-environment jsdom
import { screen, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { expectOk } from "@/core/testing/models";
import { importModel, run, send } from "@/server/testing/workspace";

/** Nothing is wrong with it. */
const file = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Applications">
  <startEvent id="start" name="Application received"/><userTask id="check" name="Check application"/><endEvent id="end" name="Application checked"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="end"/>
</process></definitions>`;

let app: Application;
let version: string;
const open = async () => {
  app = await openApplication("/", async () => {
    version = await importModel("Applications", expectOk(readBpmn(new TextEncoder().encode(file))));
  });
  app.goTo(`/v/${version}/hand-off`);
};
afterEach(() => app.close());
const button = () => screen.findByRole("button", { name: "Hand off the present state" });
const packages = async () => (await run<{ handoffs: { revision: number }[] }>("listHandoffs", { version })).handoffs;

describe("the Hand-off stage", () => {
  test("a package is made of what the version holds, and stays listed with its checksums", async () => {
    await open();
    expect(await screen.findByText(/Nothing has been handed off yet/)).toBeTruthy();
    await waitFor(async () => expect(await button()).toHaveProperty("disabled", false));
    await app.user.click(await button());
    expect(await screen.findByText("Revision 1 is handed off.")).toBeTruthy();
    const list = await screen.findByRole("table");
    expect(list.textContent).toMatch(/\d+ kB/);
    expect((await packages()).map(({ revision }) => revision)).toEqual([1]);
  });

  test("while an error is open there is none to be had, and the way to mend it is shown", async () => {
    await open();
    await button();
    await send(version, { type: "delete", ids: ["f1"] });
    expect(await screen.findByText(/errors? (is|are) open\. Mend or accept them in Check first\./)).toBeTruthy();
    expect(await button()).toHaveProperty("disabled", true);
    expect(screen.getByRole("link", { name: "Go to Check" }).getAttribute("href")).toBe(`/v/${version}/check`);
    // Whoever asks the server all the same is refused by it too.
    await expect(run("handOff", { version })).rejects.toMatchObject({ status: 409 });
    expect(await packages()).toEqual([]);
  });

  test("one whose answer was lost is told of, and is there when one looks", async () => {
    await open();
    await waitFor(async () => expect(await button()).toHaveProperty("disabled", false));
    app.next("handOff", "unanswered");
    await app.user.click(await button());
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    await waitFor(async () => expect(await packages()).toHaveLength(1));
    expect(await screen.findByRole("table")).toBeTruthy();
  });

  test("what somebody else hands off is listed without asking", async () => {
    await open();
    await button();
    await run("handOff", { version });
    expect(await screen.findByRole("table")).toBeTruthy();
  });
});
