import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { nameOf, processesOf } from "@/core/model";
import { expectOk } from "@/core/testing/models";
import { testOf, walk } from "@/core/tokens";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run, send, storedModel } from "../testing/workspace";

let version: string;
beforeAll(async () => {
  await openWorkspace();
  version = await importModel("Applications");
  await run("nameRevision", { version, reason: "as it came" });
  await send(version, { type: "rename", id: "check", name: "Check every page" });
});
afterAll(leaveWorkspace);

const exported = <Output>(name: "exportBpmn" | "exportSheet" | "exportPicture", input: object = {}) =>
  runUseCase(localMember, fileUseCases[name] as never, { version, ...input }) as Promise<Output>;
const nameIn = async (input: object) =>
  nameOf(expectOk(readBpmn((await exported<{ text: string }>("exportBpmn", input)).text)), "check");
const text = (bytes: Uint8Array) => new TextDecoder("latin1").decode(bytes);

describe("what leaves as a file", () => {
  test("what a version holds now, or what it held when it was kept", async () => {
    expect(await nameIn({})).toBe("Check every page");
    expect(await nameIn({ revision: 1 })).toBe("Check application");
    await expect(nameIn({ revision: 9 })).rejects.toMatchObject({ status: 404 });
  });

  test("the same state is the same bytes, again and again", async () => {
    const once = await exported<{ text: string }>("exportBpmn");
    expect(await exported("exportBpmn")).toEqual(once);
    const drawn = await exported<{ bytes: Uint8Array }>("exportPicture", { format: "svg" });
    expect(text((await exported<{ bytes: Uint8Array }>("exportPicture", { format: "svg" })).bytes)).toBe(
      text(drawn.bytes),
    );
  });

  test("the step sheet, of the first process or the one that is named", async () => {
    const { text: sheet } = await exported<{ text: string }>("exportSheet");
    expect(sheet).toContain("Check every page");
    expect(sheet.split("\r\n")[0]).toContain("Step");
    const { text: old } = await exported<{ text: string }>("exportSheet", { revision: 1, process: "nobody" });
    expect(old).toContain("Check application");
  });

  test.each([
    ["svg", "<svg"],
    ["png", "\u0089PNG"],
    ["pdf", "%PDF-"],
  ])("a page as %s begins as such a file does", async (format, magic) => {
    const { bytes } = await exported<{ bytes: Uint8Array }>("exportPicture", { format });
    expect(text(bytes.subarray(0, 400))).toContain(magic);
  });

  test.each([
    ["svg", "<svg"],
    ["png", "\u0089PNG"],
    ["pdf", "%PDF-"],
  ])("who calls whom as %s, of all paths or of a kept walk; of what is not there none", async (format, magic) => {
    const of = (sequence: object) => exported<{ bytes: Uint8Array }>("exportPicture", { format, sequence });
    expect(text((await of({})).bytes.subarray(0, 400))).toContain(magic);
    const model = await storedModel(version);
    const process = processesOf(model)[0]?.id ?? "";
    const content = testOf({ model }, process, walk(model, process), true);
    const { ids } = await run<{ ids: string[] }>("keepWalkTests", { version, tests: [{ name: "Usual", content }] });
    const walked = await of({ walk: ids[0] });
    expect(text(walked.bytes.subarray(0, 400))).toContain(magic);
    if (format === "svg") expect(text(walked.bytes)).not.toBe(text((await of({})).bytes));
    await expect(of({ walk: "nowhere" })).rejects.toMatchObject({ status: 404 });
    await expect(of({ process: "nowhere" })).rejects.toMatchObject({ status: 404 });
  });

  test("twice as large is twice as many pixels; the header of a PNG says how many (ISO 15948, 11.2.2)", async () => {
    const widths = await Promise.all(
      [1, 2].map(async (scale) => {
        const { bytes } = await exported<{ bytes: Uint8Array }>("exportPicture", {
          format: "png",
          scale,
          legend: false,
        });
        return new DataView(bytes.buffer, bytes.byteOffset).getUint32(16);
      }),
    );
    expect(Math.abs((widths[1] as number) / (widths[0] as number) - 2)).toBeLessThan(0.01);
  });

  test("some elements alone are a smaller picture that shows them and no others", async () => {
    const whole = text((await exported<{ bytes: Uint8Array }>("exportPicture", { format: "svg" })).bytes);
    const part = text(
      (await exported<{ bytes: Uint8Array }>("exportPicture", { format: "svg", elements: ["check"] })).bytes,
    );
    expect(part.length).toBeLessThan(whole.length);
    expect(part).toContain("every page");
    expect(part).not.toContain("Reject");
  });

  test("a page that is not there is the first; a version that is not there is told", async () => {
    await exported("exportPicture", { format: "svg", diagram: "nowhere" });
    await expect(runUseCase(localMember, fileUseCases.exportBpmn, { version: "nobody" })).rejects.toMatchObject({
      status: 404,
    });
    await expect(exported("exportPicture", { format: "gif" })).rejects.toMatchObject({ code: "bad-input" });
    await expect(exported("exportPicture", { format: "png", scale: 40 })).rejects.toMatchObject({ code: "bad-input" });
  });

  test("a name with markup in it is a name in every file", async () => {
    await send(version, { type: "rename", id: "reject", name: '<script>alert(1)</script> & "quotes"' });
    const { bytes } = await exported<{ bytes: Uint8Array }>("exportPicture", { format: "svg" });
    expect(text(bytes)).not.toContain("<script");
    expect(await nameOf(expectOk(readBpmn((await exported<{ text: string }>("exportBpmn")).text)), "reject")).toBe(
      '<script>alert(1)</script> & "quotes"',
    );
    const { text: sheet } = await exported<{ text: string }>("exportSheet");
    expect(sheet).toContain('"<script>alert(1)</script> & ""quotes"""');
  });
});
