import { readdirSync } from "node:fs";
import { join, relative } from "node:path";
import { NextRequest } from "next/server";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { membership } from "@/contract";
import { proxy } from "@/proxy";
import { openSignedIn } from "@/server/testing/signedIn";
import { closeWorkspace } from "@/server/testing/workspace";

/**
 * Every route there is, without a session, with one that is made up, with one that has ended, and with the token of a link in its place
 * (OWASP ASVS 4.0.3, 4.1.1 and 4.1.2: access is decided on the server, for each request). A new route is tried by itself.
 */
const api = join(import.meta.dirname, "api");
const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : entry.name === "route.ts" ? [join(folder, entry.name)] : [],
  );
type Handler = (request: Request, place: { params: Promise<object> }) => Promise<Response>;
const handlers = (
  await Promise.all(
    files(api).map(async (file) => {
      const route = (await import(file)) as { readonly [method: string]: unknown };
      const name = `/api/${relative(api, file).replace(/\/?route\.ts$/, "")}`;
      return ["GET", "POST", "PUT", "PATCH", "DELETE"].flatMap((method) =>
        typeof route[method] === "function" ? [[method, name, route[method] as Handler] as const] : [],
      );
    }),
  )
).flat();

/** Routes that somebody without a session may ask, and what they answer then. */
const open: { readonly [route: string]: number } = {
  // Whether members sign in here, and by what.
  "GET /api/session": 200,
  // Signing out without being in does nothing.
  "DELETE /api/session": 200,
  // Without a password that is right, each of these ends in a refusal of its own.
  "POST /api/session": 400,
  "POST /api/session/[act]": 404,
  "GET /api/session/[act]": 404,
  "GET /api/session/auth/callback/[provider]": 404,
  // Another program asks with its key; the description of what there is has none of the workspace in it.
  "GET /api/programs/[...path]": 401,
  "POST /api/programs/[...path]": 401,
};

let ended = "";
beforeAll(async () => {
  const owner = await openSignedIn();
  ended = owner.cookie;
  await owner.signOut();
});
afterAll(async () => {
  delete process.env.LANE_SIGN_IN;
  await closeWorkspace();
});

const token = "k".repeat(43);
const comers: readonly (readonly [who: string, headers: () => Record<string, string>])[] = [
  ["nobody", () => ({})],
  ["a made-up session", () => ({ cookie: `lane.session_token=${token}.${token}%3D` })],
  ["a session that has ended", () => ({ cookie: ended })],
  ["the choice of a member that holds where nobody signs in", () => ({ cookie: "lane-member=member-local" })],
  ["the token of a link", () => ({ cookie: `lane.session_token=${token}`, authorization: `Bearer ${token}` })],
];

describe.each(comers)("%s", (_, headers) => {
  test.each(handlers)("%s %s", async (method, name, handle) => {
    const request = new Request(`http://localhost:4310${name}`, {
      method,
      headers: { host: "localhost:4310", "content-type": "application/json", ...headers() },
      ...(method !== "GET" && method !== "DELETE" && { body: "{}" }),
    });
    const params = Promise.resolve({
      useCase: membership.listMembers.name,
      act: "nothing",
      path: ["runs"],
      provider: "x",
    });
    const answer = await handle(request, { params });
    expect(answer.status).toBe(open[`${method} ${name}`] ?? 401);
    if (answer.status === 401) expect(Object.keys(await answer.json())).toEqual(["error"]);
    expect(answer.headers.get("cache-control")).toContain("no-store");
    expect(answer.headers.get("access-control-allow-origin")).toBeNull();
  });
});

describe("a page without a session", () => {
  const at = (path: string, cookie = "") =>
    proxy(new NextRequest(`http://localhost:4310${path}`, { headers: { host: "localhost:4310", cookie } }));

  test("is the door, from where one comes back to it", () => {
    const answer = at("/v/solar-connection-as-is/check?finding=1");
    expect(answer.status).toBe(307);
    expect(answer.headers.get("location")).toBe(
      "http://localhost:4310/sign-in?to=%2Fv%2Fsolar-connection-as-is%2Fcheck%3Ffinding%3D1",
    );
    expect(at("/").headers.get("location")).toBe("http://localhost:4310/sign-in");
    expect(at("/sign-in").status).toBe(200);
    expect(at("/", `lane.session_token=${token}`).status).toBe(200);
  });
});

test("every route was tried", () => {
  expect(handlers.length).toBeGreaterThan(20);
  for (const route of Object.keys(open)) expect(handlers.map(([method, name]) => `${method} ${name}`)).toContain(route);
});
