import { afterAll, beforeEach, describe, expect, test, vi } from "vitest";
import { GET as picture } from "@/app/l/[token]/picture/route";
import { GET, POST } from "@/app/l/[token]/route";
import type { LinkRow } from "@/contract/links";
import { smallModel } from "@/core/testing/models";
import { database } from "@/data/database";
import { links as table } from "@/data/schema";
import { openLink } from "@/server";
import { closeWorkspace, importModel, openWorkspace, run, send } from "../testing/workspace";

afterAll(closeWorkspace);
let version: string;
beforeEach(async () => {
  await openWorkspace();
  version = await importModel("Applications", smallModel());
});

const make = async (link: string, more: object = {}) =>
  (
    await run<{ token: string }>("makeLink", {
      ...{ version, link, name: "The board", revision: null, until: null, password: null },
      ...more,
    })
  ).token;
const listed = async () => (await run<{ links: LinkRow[] }>("listLinks", { version })).links;
const shown = async (token: string, password?: string) => {
  const opened = await openLink(token, password);
  return opened.kind === "page" ? new TextDecoder().decode(opened.html) : opened;
};
const asked = (headers: object = {}, init: RequestInit = {}) =>
  new Request("http://localhost/l/x", { ...init, headers: { host: "localhost", ...headers } });
const at = (token: string) => ({ params: Promise.resolve({ token }) });

describe("a link", () => {
  test("shows what the version holds, and follows it; only its hash is kept", async () => {
    const token = await make("l");
    expect(await shown(token)).toContain("Check application");
    await send(version, { type: "rename", id: "check", name: "Look at it" });
    expect(await shown(token)).toContain("Look at it");
    const { db } = await database();
    const rows = JSON.stringify(await db.select().from(table));
    expect(rows).not.toContain(token);
    expect(token.length).toBeGreaterThan(40);
  });

  test("of a kept state shows that, whatever is done afterwards", async () => {
    const { number } = await run<{ number: number }>("nameRevision", { version, reason: "for the board" });
    const token = await make("l", { revision: number });
    await send(version, { type: "rename", id: "check", name: "Look at it" });
    const page = await shown(token);
    expect(page).toContain("Check application");
    expect(page).not.toContain("Look at it");
    await expect(make("m", { revision: 99 })).rejects.toMatchObject({ code: "not-found" });
  });

  test("tells nothing of comments, reviews, checks or figures", async () => {
    const about = { kind: "element", key: "check", words: "Check" };
    const said = { version, thread: "t", said: "s", about, text: "Between us", mentions: [], assigned: null };
    await run("startThread", said);
    expect(await shown(await make("l"))).not.toContain("Between us");
  });

  test("that is withdrawn, expired, unknown, or of what was deleted opens nothing, and all say the same", async () => {
    const token = await make("l");
    await run("withdrawLink", { version, link: "l" });
    expect(await shown(token)).toEqual({ kind: "gone" });
    expect(await shown(await make("old", { until: "2020-01-01" }))).toEqual({ kind: "gone" });
    expect(await shown("nothing")).toEqual({ kind: "gone" });
    expect((await listed()).map(({ state }) => state).sort()).toEqual(["expired", "withdrawn"]);
    const open = await make("open", { until: new Date(Date.now() + 86_400_000).toISOString().slice(0, 10) });
    expect(typeof (await shown(open))).toBe("string");
    const { version: toBe } = await run<{ version: string }>("createToBe", { source: version, name: "To-be" });
    const { token: ofToBe } = await run<{ token: string }>("makeLink", {
      ...{ version: toBe, link: "tb", name: "B", revision: null, until: null, password: null },
    });
    await run("deleteVersion", { id: toBe });
    expect(await shown(ofToBe)).toEqual({ kind: "gone" });
    await expect(run("withdrawLink", { version: toBe, link: "open" })).rejects.toMatchObject({ status: 404 });
  });
});

describe("a link with a password", () => {
  test("asks for it, and opens by it alone", async () => {
    const token = await make("l", { password: "under the meter" });
    expect(await shown(token)).toEqual({ kind: "password", isWrong: false, waits: 0 });
    expect(await shown(token, "under the mat")).toEqual({ kind: "password", isWrong: true, waits: 0 });
    expect(await shown(token, "under the meter")).toContain("Check application");
    const { db } = await database();
    expect(JSON.stringify(await db.select().from(table))).not.toContain("under the meter");
    await expect(make("m", { password: "short" })).rejects.toMatchObject({ status: 400 });
  });

  test("after some wrong ones each further one waits longer, also for whoever tries many at once; the right one begins anew", async () => {
    const token = await make("l", { password: "under the meter" });
    const tries = await Promise.all(Array.from({ length: 12 }, (_, at) => openLink(token, `wrong ${at}`)));
    const waits = tries.map((one) => (one.kind === "password" ? one.waits : -1));
    // Three are free; the fourth begins the waiting, and none of the rest is looked at.
    expect(waits.filter((one) => one === 0)).toHaveLength(3);
    expect(waits.filter((one) => one > 0)).toHaveLength(9);
    expect(await openLink(token, "under the meter")).toMatchObject({ kind: "password" });
    vi.useFakeTimers({ now: Date.now() + 60_000, toFake: ["Date"] });
    try {
      expect(await openLink(token, "wrong again")).toMatchObject({ waits: 4 });
      vi.setSystemTime(Date.now() + 60_000);
      expect((await openLink(token, "under the meter")).kind).toBe("page");
      expect(await openLink(token, "wrong")).toMatchObject({ waits: 0 });
    } finally {
      vi.useRealTimers();
    }
  });
});

describe("what answers a link", () => {
  test("is not kept, indexed or framed, may run only its own script, and sends nobody's address on", async () => {
    const answer = await GET(asked(), at(await make("l")));
    expect(answer.status).toBe(200);
    expect(answer.headers.get("cache-control")).toBe("no-store");
    expect(answer.headers.get("x-robots-tag")).toContain("noindex");
    expect(answer.headers.get("referrer-policy")).toBe("no-referrer");
    expect(answer.headers.get("content-security-policy")).toMatch(/sandbox.*frame-ancestors 'none'/);
    const page = await answer.text();
    expect(page).toMatch(/script-src 'sha256-[^']+'/);
    expect(page).not.toMatch(/script-src[^;]*unsafe-inline/);
    expect(page).toContain('name="robots" content="noindex"');
  });

  test("asks for a password by a form, and takes it only from its own page", async () => {
    const token = await make("l", { password: "under the meter" });
    const form = await GET(asked(), at(token));
    expect(await form.text()).toContain('<form method="post">');
    const post = (password: string, headers: object = {}) =>
      POST(
        asked(
          { "content-type": "application/x-www-form-urlencoded", ...headers },
          { method: "POST", body: `password=${encodeURIComponent(password)}` },
        ),
        at(token),
      );
    expect((await post("no")).status).toBe(403);
    expect(await (await post("under the meter")).text()).toContain("Check application");
    expect(
      (await post("under the meter", { origin: "http://elsewhere.example", "sec-fetch-site": "cross-site" })).status,
    ).toBe(403);
    expect((await GET(asked({ host: "elsewhere.example" }), at(token))).status).toBe(403);
    expect((await GET(asked(), at("none"))).status).toBe(404);
  });

  test("the picture may be put into other pages, and is not behind a password", async () => {
    const elsewhere = { "sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors" };
    const answer = await picture(asked(elsewhere), at(await make("l")));
    expect(answer.headers.get("content-type")).toContain("image/svg+xml");
    expect(await answer.text()).toContain("Check application".split(" ")[0]);
    expect((await picture(asked(elsewhere), at(await make("p", { password: "under the meter" })))).status).toBe(404);
    expect((await picture(asked({ host: "elsewhere.example" }), at(await make("q")))).status).toBe(403);
  });
});
