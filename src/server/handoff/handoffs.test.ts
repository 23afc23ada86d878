import { createHash } from "node:crypto";
import { strFromU8, unzipSync } from "fflate";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { expectOk } from "@/core/testing/models";
import { fileUseCases, localMember, runUseCase, useCases } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
let version: string;
beforeEach(async () => {
  await openWorkspace();
  version = await importModel(
    "Applications",
    expectOk(
      readBpmn(`<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Applications">
        <startEvent id="start" name="Application received"/><userTask id="check" name="Check application"/><endEvent id="end" name="Application checked"/>
        <sequenceFlow id="f1" sourceRef="start" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="end"/></process></definitions>`),
    ),
  );
});

const handOff = () => run<{ handoff: string; revision: number }>("handOff", { version });
const parts = async (handoff: string) => {
  const { bytes } = (await runUseCase(localMember, fileUseCases.downloadPackage, { version, handoff })) as {
    bytes: Uint8Array;
  };
  return unzipSync(new Uint8Array(bytes));
};
const manifestOf = async (handoff: string) =>
  JSON.parse(strFromU8((await parts(handoff))["manifest.json"] as Uint8Array)) as {
    revision: number;
    parts: { name: string; bytes: number; sha256: string }[];
  };

describe("packages", () => {
  test("each part is what the manifest says, by its size and checksum, and none is missing", async () => {
    const { handoff, revision } = await handOff();
    const [files, manifest] = [await parts(handoff), await manifestOf(handoff)];
    expect(manifest.revision).toBe(revision);
    expect(manifest.parts.map(({ name }) => name).sort()).toEqual(
      Object.keys(files)
        .filter((name) => name !== "manifest.json")
        .sort(),
    );
    for (const { name, bytes, sha256 } of manifest.parts) {
      const part = files[name] as Uint8Array;
      expect([part.length, createHash("sha256").update(part).digest("hex")]).toEqual([bytes, sha256]);
    }
  });

  test("what was said in a review of exactly this state goes along; of an earlier one nothing does", async () => {
    await run("setMember", { id: "oran", name: "Oran <Veltri>", roles: [] });
    const oran = { ...localMember, id: "oran", name: "Oran <Veltri>" };
    const ask = (review: string) =>
      run("askReview", { version, review, reviewers: ["oran"], question: "Right so?", due: null });
    await ask("early");
    await send(version, { type: "rename", id: "check", name: "Check every page" });
    await ask("now");
    const answer = { version, review: "now", answer: "remarks", note: "Mind the winter." };
    await runUseCase(oran, useCases.answerReview, answer);
    const files = await parts((await handOff()).handoff);
    const report = JSON.parse(strFromU8(files["report.json"] as Uint8Array)) as { reviews: unknown[] };
    expect(report.reviews).toMatchObject([
      { state: "approved", answers: [{ member: "Oran <Veltri>", answer: "remarks", note: "Mind the winter." }] },
    ]);
    expect(strFromU8(files["report.html"] as Uint8Array)).toContain(
      "A review of this state approved it: Right so?</p><ul><li>Oran &lt;Veltri&gt; approves with remarks, ",
    );
  });

  test("one never changes, whatever becomes of the version; the next is another", async () => {
    const first = await handOff();
    const before = await parts(first.handoff);
    await send(version, { type: "rename", id: "check", name: "Check every page" });
    const second = await handOff();
    expect(second.revision).toBeGreaterThan(first.revision);
    expect(await parts(first.handoff)).toEqual(before);
    const model = (files: Awaited<ReturnType<typeof parts>>) =>
      strFromU8(Object.entries(files).find(([name]) => name.endsWith(".bpmn"))?.[1] as Uint8Array);
    expect(model(before)).toContain("Check application");
    expect(model(await parts(second.handoff))).toContain("Check every page");
  });

  test("several at once are one after the other, each with a number of its own", async () => {
    const made = await Promise.all(Array.from({ length: 4 }, handOff));
    expect(new Set(made.map(({ revision }) => revision)).size).toBe(4);
    const { handoffs } = await run<{ handoffs: unknown[] }>("listHandoffs", { version });
    expect(handoffs).toHaveLength(4);
  });

  test("an open error refuses it, in words that fit one and several; nothing is kept", async () => {
    await send(version, { type: "delete", ids: ["f2"] });
    await expect(handOff()).rejects.toMatchObject({
      code: "errors-open",
      message: expect.stringMatching(/^(1 error is open\. Mend it|\d+ errors are open\. Mend them)/),
    });
    const { handoffs } = await run<{ handoffs: unknown[] }>("listHandoffs", { version });
    expect(handoffs).toEqual([]);
    const { revisions } = await run<{ revisions: unknown[] }>("listRevisions", { version });
    expect(revisions).toEqual([]);
  });

  test("one of another version is none of this one's", async () => {
    const { handoff } = await handOff();
    const other = await importModel("Other");
    await expect(
      runUseCase(localMember, fileUseCases.downloadPackage, { version: other, handoff }),
    ).rejects.toMatchObject({ status: 404 });
  });
});
