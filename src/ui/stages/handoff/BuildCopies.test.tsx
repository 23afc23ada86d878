// @vitest-environment jsdom
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, test } from "vitest";
import { type Application, openApplication } from "@/app/testing/application";
import { readBpmn } from "@/core/bpmn";
import { expectOk } from "@/core/testing/models";
import { importModel, nameOfElement, send } from "@/server/testing/workspace";

/** Nothing is wrong with it, so that it may leave. */
const checked = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Connect a plant">
  <startEvent id="start" name="Application received"/><userTask id="check" name="Check application"/><endEvent id="end" name="Application checked"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="end"/></process></definitions>`;
let app: Application;
let version: string;
let root: string;
const file = () => join(root, "connect.bpmn");
const read = () => readFileSync(file(), "utf8");
const state = () => within(screen.getByTestId("build-copy")).getByTestId("build-state").textContent;
const standsAs = (words: string) => waitFor(() => expect(state()).toBe(words));
/** What was asked for before may still be under way, and the button waits for it. */
const press = async (name: string | RegExp) => {
  const button = () => screen.getByRole("button", { name });
  await waitFor(() => expect(button()).toHaveProperty("disabled", false));
  await app.user.click(button());
};

beforeEach(async () => {
  root = mkdtempSync(join(tmpdir(), "lane-builds-"));
  process.env.LANE_BUILDS = `folder:${root}`;
  app = await openApplication("/", async () => {
    version = await importModel("Connect a plant", expectOk(readBpmn(checked)));
  });
  app.goTo(`/v/${version}/hand-off`);
  await app.user.click(await screen.findByRole("radio", { name: "Build copies" }));
});
afterEach(async () => {
  await app.close();
  rmSync(root, { recursive: true, force: true });
});

async function tie(path = "connect.bpmn"): Promise<void> {
  await press(/^Tie to a developers/);
  const field = await screen.findByLabelText(/Path of the file/);
  await app.user.clear(field);
  await app.user.type(field, path);
  await app.user.click(screen.getByRole("button", { name: "Tie" }));
}

describe("build copies", () => {
  test("nothing is tied at first; a path that leads out is refused with a reason, and nothing is tied", async () => {
    expect(await screen.findByText(/A version can be tied to a file/)).toBeTruthy();
    await tie("../out.bpmn");
    expect(await screen.findByText(/A path in the place that ends in \.bpmn/)).toBeTruthy();
    expect(screen.queryByTestId("build-copy")).toBeNull();
  });

  test("a sending whose answer is lost is told of, and has happened when one looks", async () => {
    await tie();
    await screen.findByTestId("build-copy");
    await standsAs("Not sent yet");
    app.next("sendToBuildCopy", "unanswered");
    await press("Send what changed");
    expect(await screen.findByText(/The server did not answer/)).toBeTruthy();
    await standsAs("In step");
    expect(read()).toContain("Check application");
  });

  test("only a checked model leaves: while an error is open, sending waits", async () => {
    await tie();
    await screen.findByTestId("build-copy");
    await waitFor(() =>
      expect(screen.getByRole("button", { name: "Send what changed" })).toHaveProperty("disabled", false),
    );
    await send(version, { type: "delete", ids: ["f1"] });
    await waitFor(() =>
      expect(screen.getByRole("button", { name: "Send what changed" })).toHaveProperty("disabled", true),
    );
    expect(screen.getByTestId("handoff-state").textContent).toMatch(/errors? (is|are) open/);
  });

  test("what developers changed is listed and taken over; what both changed is decided first", async () => {
    await tie();
    await screen.findByTestId("build-copy");
    await press("Send what changed");
    await standsAs("In step");
    writeFileSync(file(), read().replace("Check application", "Test application"));
    await send(version, { type: "rename", id: "check", name: "Look at the application" });
    await press("Look again");
    await standsAs("Both changed");
    expect(screen.getByRole("button", { name: "Take all over" })).toHaveProperty("disabled", true);
    const sides = screen.getByRole("group", { name: /Check application|Look at the application/ });
    expect(sides.textContent).toMatch(/The model’sLook at the application.*The developers’Test application/);
    await app.user.click(screen.getByRole("radio", { name: /^The developers’/ }));
    // Neither of the two, but a text of one's own.
    const own = screen.getByRole("textbox", { name: "Write it here" });
    await app.user.type(own, "Try the application");
    await press("Take all over");
    await standsAs("Model changed");
    expect(await nameOfElement(version, "check")).toBe("Try the application");
    await press("Send what changed");
    await standsAs("In step");
    expect(read()).toContain("Try the application");
    await press(/steps so far/);
    expect(screen.getByTestId("build-copy").textContent).toMatch(/taken over .*sent .*tied/);
  });

  test("a file that is broken says where; untied, it stays as it is", async () => {
    await tie();
    await screen.findByTestId("build-copy");
    await press("Send what changed");
    await standsAs("In step");
    const broken = read().replace("</definitions>", "");
    writeFileSync(file(), broken);
    await press("Look again");
    await standsAs("Cannot be read");
    expect(screen.getByRole("alert").textContent).toMatch(/Line \d+, column \d+/);
    expect(screen.queryByRole("button", { name: "Send what changed" })).toBeNull();
    await press("Untie");
    await app.user.click(within(await screen.findByRole("alertdialog")).getByRole("button", { name: "Untie" }));
    await waitFor(() => expect(screen.queryByTestId("build-copy")).toBeNull());
    expect(read()).toBe(broken);
  });
});
