import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { strFromU8, unzipSync } from "fflate";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { type StoredModel, trustStored } from "@/core/model";
import { estimatesOf } from "@/core/scenario";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { leaveWorkspace, makeProcess, nameOfElement, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);

const make = async () => ((await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array }).bytes;
const putBack = (bytes: Uint8Array) =>
  runUseCase(localMember, fileUseCases.restore, { bytes }) as Promise<{ keptAs: string | null }>;
const golden = (name: string) => new Uint8Array(readFileSync(new URL(`../testing/golden/${name}`, import.meta.url)));

type Line = [table: string, row: Record<string, unknown>];
/** A backup with its rows changed, and a checksum that fits, as from a hand that knows the format. */
function changed(bytes: Uint8Array, change: (rows: Line[]) => Line[] | undefined): Uint8Array {
  const text = Buffer.from(bytes).toString("latin1");
  const start = text.indexOf("\n", text.indexOf("\n") + 1) + 1;
  const rows = gunzipSync(bytes.subarray(start))
    .toString()
    .trimEnd()
    .split("\n")
    .map((line) => JSON.parse(line) as Line);
  const next = change(rows) ?? rows;
  const packed = gzipSync(next.map((row) => `${JSON.stringify(row)}\n`).join(""));
  const sum = createHash("sha256").update(packed).digest("hex");
  return Buffer.concat([Buffer.from(`lucid-lane-backup-2\nsha256 ${sum}\n`), packed]);
}

describe("restoring", () => {
  let good: Uint8Array;
  beforeAll(async () => {
    await openWorkspace();
    const { version } = await makeProcess();
    await send(version, { type: "setEstimate", id: "check", time: "5 min" });
    await run("nameRevision", { version, reason: "first" });
    await run("handOff", { version });
    good = await make();
  });
  const unchanged = async () => expect(Buffer.from(await make()).equals(Buffer.from(good))).toBe(true);

  test("one bit flipped anywhere: refused, and nothing is replaced (60 of 60)", async () => {
    let refused = 0;
    for (let at = 0; at < 60; at++) {
      const flipped = Uint8Array.from(good);
      const place = Math.floor((good.length - 1) * (at / 59));
      flipped[place] = (flipped[place] as number) ^ (1 << (at % 8));
      await putBack(flipped).then(
        () => {},
        (error: { code: string }) => {
          if (error.code === "not-a-backup") refused++;
        },
      );
    }
    expect(refused).toBe(60);
    await unchanged();
  }, 120_000);

  const set = (record: Record<string, unknown>, field: string, value: unknown): undefined => {
    record[field] = value;
  };
  const row = (rows: Line[], table: string) => rows.find(([name]) => name === table)?.[1] as Record<string, unknown>;
  test.each<[what: string, change: (rows: Line[]) => Line[] | undefined, told: RegExp]>([
    ["a row without its id", (rows) => void delete row(rows, "processes").id, /row 1 of its processes is not valid/],
    ["a row with a column there is not", (rows) => set(row(rows, "areas"), "colour", "red"), /row 1 of its areas/],
    ["a table there is not", (rows) => [...rows, ["secrets", {}]], /does not know \(secrets\)/],
    ["a process in no area", (rows) => set(row(rows, "processes"), "area", "nowhere"), /its processes name nowhere/],
    ["a version without content", (rows) => rows.filter(([name]) => name !== "heads"), /is missing/],
    [
      "a gap in a log",
      (rows) => rows.filter(([name], at) => name !== "log" || rows.findIndex(([other]) => other === "log") !== at),
      /the version v: changes are missing/,
    ],
    [
      "a model that is none",
      (rows) => set(row(rows, "heads"), "snapshot", { schemaVersion: 2 }),
      /the version v: This stored model is damaged/,
    ],
    [
      "a revision of a newer release",
      (rows) => set(row(rows, "revisions").model as never, "schemaVersion", 99),
      /newer release/,
    ],
    [
      "an edit that does not fit",
      (rows) =>
        set(row(rows, "log"), "edits", [
          { kind: "set", table: "elements", id: "gone", field: "name", from: null, to: "x" },
        ]),
      /the version v: .*change/,
    ],
    ["a number beyond what is kept", (rows) => set(row(rows, "heads"), "sequence", 2 ** 40), /row 1 of its heads/],
    ["a NUL in a name", (rows) => set(row(rows, "areas"), "name", "a\u0000b"), /NUL/],
    ["a moment that is none", (rows) => set(row(rows, "processes"), "createdAt", "soon"), /is no moment/],
  ])("%s: refused with its place, and nothing is replaced", async (_, change, told) => {
    await expect(putBack(changed(good, change))).rejects.toMatchObject({
      status: 422,
      message: expect.stringMatching(told),
    });
    await unchanged();
  });

  test("what unpacks to far more than it is stops in bounded memory", async () => {
    const bomb = changed(good, () => [["areas", { id: "x", name: "y".repeat(300 * 1024 * 1024) }]]);
    expect(bomb.length).toBeLessThan(1024 * 1024);
    await expect(putBack(bomb)).rejects.toMatchObject({
      code: "not-a-backup",
      message: expect.stringContaining("256 MB"),
    });
    await unchanged();
  }, 60_000);

  test("what is replaced is kept as a backup beside it, and can be put back", async () => {
    const empty = changed(good, (rows) => rows.filter(([name]) => name === "members"));
    const { keptAs } = await putBack(empty);
    expect(await run("openHome", {})).toMatchObject({ processes: [] });
    const folder = join(process.env.LANE_DATA as string, "backups");
    expect(readdirSync(folder)).toContain(keptAs?.split("/").at(-1));
    await putBack(new Uint8Array(readFileSync(keptAs as string)));
    await unchanged();
  });
});

describe("past forms", () => {
  test("a backup of the first form is restored, with what its log says; every part of it opens", async () => {
    await openWorkspace();
    await putBack(golden("backup-form-1.backup"));
    expect(await nameOfElement("v", "check")).toBe("Check the application");
    const { model } = await run<{ model: StoredModel }>("openVersion", { version: "v" });
    expect(estimatesOf(trustStored(model)).get("check")).toEqual({ time: "PT45M", cost: 12.5 });
    const kept = await run<{ model: StoredModel }>("openRevision", { version: "v", number: 1 });
    expect(estimatesOf(trustStored(kept.model)).get("check")).toEqual({ time: "PT30M", cost: 12.5 });
    expect(await run("openBrief", { process: "connect" })).toMatchObject({ brief: { id: "b" } });
    const commands = [{ type: "setEstimate", id: "check", time: "50 min" }];
    await run("applyCommands", { version: "v", batch: "since", base: 5, commands });
    const again = await run<{ model: StoredModel }>("openVersion", { version: "v" });
    expect(estimatesOf(trustStored(again.model)).get("check")?.time).toBe("PT50M");
    const { handoffs } = await run<{ handoffs: { id: string }[] }>("listHandoffs", { version: "v" });
    const { bytes } = (await runUseCase(localMember, fileUseCases.downloadPackage, {
      version: "v",
      handoff: handoffs[0]?.id,
    })) as {
      bytes: Uint8Array;
    };
    expect(Buffer.from(bytes).equals(Buffer.from(golden("package-form-1.zip")))).toBe(true);
    await run("restoreRevision", { version: "v", number: 1 });
    expect(await nameOfElement("v", "check")).toBe("Check application");
  });

  test("a package of the first form holds a model that opens", () => {
    const read = readBpmn(strFromU8(unzipSync(golden("package-form-1.zip"))["model.bpmn"] as Uint8Array));
    expect(read.ok && estimatesOf(read.value).get("check")).toEqual({ time: "PT45M", cost: 12.5 });
  });
});
