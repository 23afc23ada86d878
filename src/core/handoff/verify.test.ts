import { createHash } from "node:crypto";
import fc from "fast-check";
import { strToU8, unzipSync, type Zippable, zipSync } from "fflate";
import { describe, expect, test } from "vitest";
import { smallModel } from "../testing/models";
import { makePackage, verifyPackage } from ".";
import { openArchive } from "./archive";

const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");
const original = makePackage({
  model: smallModel(),
  process: "Connect a plant",
  version: "As-is",
  revision: 3,
  date: "2026-11-27T09:00:00.000Z",
  member: "Analyst",
  waivers: [],
  sha256,
}).bytes;
const files = () => unzipSync(original);
const verified = (bytes: Uint8Array) => {
  const read = verifyPackage(bytes, sha256);
  return read.ok
    ? Object.fromEntries(read.value.parts.map(({ name, state }) => [name, state]))
    : (read.problems[0]?.message ?? "");
};
const packed = (content: { [name: string]: Uint8Array }, level: 0 | 6 = 6) => zipSync(content as Zippable, { level });

/** Where a text stands in an archive: in the header of its entry, and in the list at its end. */
function placesOf(bytes: Uint8Array, text: string): number[] {
  const whole = Buffer.from(bytes);
  const places: number[] = [];
  for (let at = whole.indexOf(text); at >= 0; at = whole.indexOf(text, at + 1)) places.push(at);
  return places;
}

describe("a copy of a package", () => {
  test("is whole as it was made, and packed anew by another program in another order", () => {
    const whole = {
      "model.bpmn": "same",
      "report.json": "same",
      "report.html": "same",
      "checklist.md": "same",
      "checklist.csv": "same",
      "diagram.svg": "same",
    };
    expect(verified(original)).toEqual(whole);
    const turned = Object.fromEntries(Object.entries(files()).reverse());
    expect(verified(packed(turned, 0))).toEqual(whole);
    expect(verified(packed({ ...turned, "folder/": new Uint8Array() }))).toEqual(whole);
  });

  test("tells what was changed, is missing and was added", () => {
    const { "report.html": _, ...rest } = files();
    const model = strToU8(`${Buffer.from(rest["model.bpmn"] as Uint8Array)} `);
    expect(verified(packed({ ...rest, "model.bpmn": model, "notes.txt": strToU8("x") }))).toEqual({
      "model.bpmn": "changed",
      "report.json": "same",
      "report.html": "missing",
      "checklist.md": "same",
      "checklist.csv": "same",
      "diagram.svg": "same",
      "notes.txt": "added",
    });
  });

  test("of which any one byte of any part is another is not whole", () => {
    fc.assert(
      fc.property(
        fc.constantFrom("model.bpmn", "report.json", "report.html", "diagram.svg"),
        fc.nat(),
        fc.integer({ min: 1, max: 255 }),
        (name, place, by) => {
          const content = files();
          const part = new Uint8Array(content[name] as Uint8Array);
          const at = place % part.length;
          part[at] = (part[at] as number) ^ by;
          const read = verifyPackage(packed({ ...content, [name]: part }), sha256);
          expect(read.ok && read.value.parts.filter(({ state }) => state !== "same")).toEqual([
            { name, state: "changed" },
          ]);
        },
      ),
      { numRuns: 40 },
    );
  });

  test("that was damaged anywhere is told as changed or as no package, and never as whole", () => {
    fc.assert(
      fc.property(fc.nat(), fc.integer({ min: 1, max: 255 }), (place, by) => {
        const bytes = new Uint8Array(original);
        const at = place % bytes.length;
        bytes[at] = (bytes[at] as number) ^ by;
        const read = verifyPackage(bytes, sha256);
        // A byte that says nothing of what is in it (a time, a hint, the check sum of the archive itself) may be any.
        if (read.ok && read.value.isWhole) {
          const kept = openArchive(bytes);
          for (const [name, content] of Object.entries(files()))
            if (name !== "manifest.json") expect(kept.ok && kept.value.read(name)).toEqual(content);
        }
      }),
      { numRuns: 100 },
    );
  });
});

describe("what is no package", () => {
  const renamed = (from: string, to: string) => {
    const bytes = new Uint8Array(packed({ ...files(), [from]: strToU8("x") }));
    for (const at of placesOf(bytes, from)) bytes.set(strToU8(to), at);
    return bytes;
  };
  const withManifest = (manifest: unknown) =>
    packed({
      ...files(),
      "manifest.json": strToU8(typeof manifest === "string" ? manifest : JSON.stringify(manifest)),
    });
  const manifest = JSON.parse(Buffer.from(files()["manifest.json"] as Uint8Array).toString());
  const { "manifest.json": _, ...unlisted } = files();

  test.each<[string, () => Uint8Array, RegExp]>([
    ["nothing", () => new Uint8Array(), /not a zip archive/],
    ["a text", () => strToU8("hello ".repeat(40)), /not a zip archive/],
    ["an archive cut off", () => original.slice(0, original.length - 30), /not a zip archive/],
    ["an empty archive", () => zipSync({}), /no manifest.json/i],
    ["an archive without a manifest", () => packed(unlisted), /no manifest.json/i],
    ["a manifest that is no JSON", () => withManifest("{"), /not that of a package/],
    ["one of something else", () => withManifest({ format: "other" }), /not that of a package/],
    [
      "one that names a part twice",
      () => withManifest({ ...manifest, parts: [...manifest.parts, ...manifest.parts] }),
      /not that/,
    ],
    [
      "one that names itself",
      () => withManifest({ ...manifest, parts: [{ name: "manifest.json", bytes: 1, sha256: "" }] }),
      /not that/,
    ],
    ["a name that leads up", () => renamed("aaa/b.txt", "../zz.txt"), /leads out/],
    ["a name that leads up inside", () => renamed("aaa/bb/c.t", "aaa/../c.t"), /leads out/],
    ["a name that leads up on another system", () => renamed("aaa/b.txt", "..\\zz.txt"), /leads out/],
    ["a name from the root", () => renamed("aetc/b.txt", "/etc/b.txt"), /leads out/],
    ["a name from a drive", () => renamed("aaab.txt", "C:\\b.txt"), /leads out/],
    ["a name twice", () => renamed("model.bpmx", "model.bpmn"), /there twice/],
    [
      "a name twice, written otherwise",
      () => packed({ ...files(), "a/b": strToU8("1"), "a\\b": strToU8("2") }),
      /there twice/,
    ],
  ])("%s", (_what, make, told) => {
    expect(verified(make())).toMatch(told);
  });

  const limits = { entries: 20, unpackedBytes: 3_000_000 };
  const told = (bytes: Uint8Array) => {
    const read = verifyPackage(bytes, sha256, limits);
    return read.ok ? "a package" : read.problems[0]?.message;
  };
  const big = packed({ ...files(), "model.bpmn": new Uint8Array(9_000_000) });

  test("what is said to be larger than allowed is told before it is unpacked", () => {
    expect(told(big)).toMatch(/larger than 3 MB/);
    // The same list, of which nothing is there to be unpacked.
    const hollow = new Uint8Array(big);
    const [first] = placesOf(big, "manifest.json").slice(-1);
    hollow.fill(0, 0, (first as number) - 46);
    expect(told(hollow)).not.toBe("a package");
  });

  test.each(["model.bpmn", "more.bin"])(
    "what says of itself that it is small and is not is told, and not unpacked to its end: %s",
    (name) => {
      const lying = new Uint8Array(packed({ ...files(), [name]: new Uint8Array(9_000_000) }));
      const view = new DataView(lying.buffer);
      for (const at of placesOf(lying, name)) {
        if (at >= 46 && view.getUint32(at - 46, true) === 0x02014b50) view.setUint32(at - 46 + 24, 10, true);
        if (at >= 30 && view.getUint32(at - 30, true) === 0x04034b50) view.setUint32(at - 30 + 22, 10, true);
      }
      expect(told(lying)).toMatch(/larger than 3 MB/);
    },
  );

  test("several that are small alone and large together", () => {
    const many = Object.fromEntries(Array.from({ length: 8 }, (_, at) => [`p${at}`, new Uint8Array(500_000)]));
    expect(told(packed({ ...files(), ...many }))).toMatch(/larger than 3 MB/);
  });

  test("more entries than allowed", () => {
    const many = Object.fromEntries(Array.from({ length: 30 }, (_, at) => [`p${at}`, strToU8("x")]));
    expect(told(packed({ ...files(), ...many }))).toMatch(/more than 20 entries/);
  });

  test("an entry locked with a password, and one packed in another way", () => {
    const change = (field: number, value: number) => {
      const bytes = new Uint8Array(original);
      const at = placesOf(bytes, "report.json").at(-1) as number;
      new DataView(bytes.buffer).setUint16(at - 46 + field, value, true);
      return verified(bytes);
    };
    expect(change(8, 1)).toMatch(/locked/);
    expect(change(10, 12)).toMatch(/packed in a way/);
  });
});
