import { createHash } from "node:crypto";
import { strFromU8, unzipSync } from "fflate";
import { expect, test } from "vitest";
import type { Description } from "../descriptions";
import { readDescription } from "../descriptions";
import { boundAs } from "../services";
import { expectOk, performAll, smallModel } from "../testing/models";
import { makePackage } from ".";
import { servicesOf } from "./services";

const described = (title: string): Description =>
  expectOk(
    readDescription({
      name: "meters.json",
      bytes: new TextEncoder().encode(
        JSON.stringify({
          openapi: "3.1.0",
          info: { title, version: "7" },
          paths: { "/m": { get: { operationId: "readMeter", responses: { "200": { description: "ok" } } } } },
        }),
      ),
    }),
  );
const platform = described("Meter <platform>");
const [service] = platform.interfaces;
const [operation] = service?.operations ?? [];
if (!service || !operation) throw new Error("nothing was read");
const model = performAll(
  smallModel(),
  { type: "bindOperation", id: "reject", to: boundAs("me ters.json", platform, service.name, operation) },
  { type: "keepCandidate", of: "desk" },
);
const sha256 = (bytes: Uint8Array) => createHash("sha256").update(bytes).digest("hex");

test("a package says which step calls what, which candidates there are, and holds the descriptions that are used", () => {
  const { bytes, manifest } = makePackage({
    model,
    process: "P",
    version: "As-is",
    revision: 1,
    date: "2026-11-23T10:00:00.000Z",
    member: "M",
    waivers: [],
    sha256,
    descriptions: [
      { name: "me ters.json", description: platform },
      { name: "other.json", description: described("Other") },
    ],
  });
  const parts = unzipSync(bytes);
  expect(Object.keys(parts).filter((name) => /^(services|descriptions)/.test(name))).toEqual([
    "services.json",
    "descriptions/1-me-ters.json.json",
  ]);
  expect(manifest.parts.map(({ name }) => name)).toContain("services.json");
  const services = JSON.parse(strFromU8(parts["services.json"] as Uint8Array));
  expect(services.interfaces).toMatchObject([
    {
      name: "Meter <platform>",
      source: "me ters.json",
      version: "7",
      operations: [{ name: "readMeter", address: "GET /m", steps: [{ id: "reject", name: "Reject application" }] }],
    },
  ]);
  expect(services.candidates).toMatchObject([{ name: "Front desk", from: { id: "desk" }, decision: null }]);
  const report = strFromU8(parts["report.html"] as Uint8Array);
  expect(report).toContain("<code>readMeter</code> of Meter &lt;platform&gt;");
  expect(report).toContain("<strong>Front desk</strong>");
});

test("a model without any has no such part", () => {
  expect(servicesOf(smallModel())).toBeUndefined();
  const { bytes } = makePackage({
    model: smallModel(),
    process: "P",
    version: "V",
    revision: 1,
    date: "2026-11-23T10:00:00.000Z",
    member: "M",
    waivers: [],
    sha256,
  });
  expect(Object.keys(unzipSync(bytes)).some((name) => /services|descriptions/.test(name))).toBe(false);
});
