import { afterAll, beforeEach, describe, expect, test, vi } from "vitest";
import { GET as talkPage, POST as talkSent } from "@/app/l/[token]/comment/route";
import { GET as picture } from "@/app/l/[token]/picture/route";
import { GET, POST } from "@/app/l/[token]/route";
import type { ThreadRow } from "@/contract/comments";
import type { LinkRow } from "@/contract/links";
import { smallModel } from "@/core/testing/models";
import { database } from "@/data/database";
import { links as table } from "@/data/schema";
import { commentByLink, openCommentPage, openLink } from "@/server";
import { importModel, leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";

afterAll(leaveWorkspace);
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

describe("a link by which one comments", () => {
  const say = (token: string, more: object = {}, of = "check") =>
    commentByLink(token, of, { id: "first-one", name: "Ada", text: "Who checks this?", ...more });
  const threads = async () => (await run<{ threads: ThreadRow[] }>("listThreads", { version })).threads;

  test("what is said stands at its element, under the name given beside the link's; sent twice it is kept once", async () => {
    const token = await make("l", { allows: "comment" });
    expect(await shown(token)).toContain(`/l/${token}/comment?of=check`);
    expect(await openCommentPage(token, "check")).toMatchObject({ kind: "talk", about: "Check application", said: [] });
    expect(await Promise.all([say(token), say(token)])).toEqual([{ kind: "said" }, { kind: "said" }]);
    const [thread, ...others] = await threads();
    expect(others).toEqual([]);
    expect(thread).toMatchObject({
      about: { kind: "element", key: "check" },
      said: [{ name: "Ada (The board)", text: "Who checks this?", mentions: [] }],
    });
    // Members answer as they do to each other; whoever has the link sees that, and nothing of other threads.
    const answer = { version, thread: thread?.id, said: "a", text: "The front desk.", mentions: [] };
    await run("answerThread", answer);
    const about = { kind: "element", key: "check", words: "Check" };
    await run("startThread", {
      version,
      thread: "t",
      said: "s",
      about,
      text: "Between us",
      mentions: [],
      assigned: null,
    });
    const page = await openCommentPage(token, "check");
    expect(page.kind === "talk" && page.said.map(({ text }) => text)).toEqual(["Who checks this?", "The front desk."]);
    // The whole is commented on as well.
    expect(await say(token, { id: "second-one" }, "")).toEqual({ kind: "said" });
    expect((await threads()).map((one) => one.about.kind).sort()).toEqual(["element", "element", "version"]);
  });

  test("is none where the link only reads, is withdrawn, or the thing is gone; nor without a password or words", async () => {
    const reads = await make("r");
    expect(await shown(reads)).not.toContain("/comment");
    expect(await say(reads)).toEqual({ kind: "gone" });
    expect(await openCommentPage(reads, "check")).toEqual({ kind: "gone" });
    const token = await make("l", { allows: "comment", password: "under the mat" });
    expect(await say(token)).toMatchObject({ kind: "password" });
    expect(await say(token, { password: "under the mat" }, "no such thing")).toEqual({ kind: "gone" });
    expect(await say(token, { password: "under the mat", text: "  " })).toMatchObject({ refusal: "empty" });
    expect(await say(token, { password: "under the mat", id: "x" })).toMatchObject({ refusal: "empty" });
    expect(await threads()).toEqual([]);
    await run("withdrawLink", { version, link: "l" });
    expect(await say(token, { password: "under the mat" })).toEqual({ kind: "gone" });
  });

  test("a hundred threads are enough, and what was said is nobody's of the members", async () => {
    const token = await make("l", { allows: "comment" });
    for (let at = 0; at < 100; at++) expect(await say(token, { id: `number-${at}` })).toEqual({ kind: "said" });
    expect(await say(token, { id: "number-100" })).toMatchObject({ refusal: "enough" });
    const [thread] = await threads();
    const edit = { version, thread: thread?.id, said: thread?.said[0]?.id, text: "Mine", mentions: [] };
    await expect(run("editSaid", edit)).rejects.toMatchObject({ code: "not-yours" });
    expect(await listed()).toMatchObject([{ allows: "comment" }]);
  });

  test("its page is a plain form that shows names as text, and leads back to itself when something was sent", async () => {
    const token = await make("l", { allows: "comment" });
    await send(version, { type: "rename", id: "check", name: "<b>Check</b>" });
    const at = { params: Promise.resolve({ token }) };
    const page = await talkPage(
      new Request("http://localhost/l/x/comment?of=check", { headers: { host: "localhost" } }),
      at,
    );
    const html = await page.text();
    expect(html).toContain("&lt;b&gt;Check&lt;/b&gt;");
    expect(page.headers.get("content-security-policy")).toContain("default-src 'none'");
    const id = /name="id" value="([\w-]+)"/.exec(html)?.[1] ?? "";
    const body = new URLSearchParams({ id, name: "Ada", text: "Fine." });
    const sent = await talkSent(
      new Request("http://localhost/l/x/comment?of=check", {
        ...{ method: "POST", body, headers: { host: "localhost", origin: "http://localhost" } },
      }),
      at,
    );
    expect([sent.status, sent.headers.get("location")]).toEqual([303, "/l/x/comment?of=check"]);
    const foreign = { host: "localhost", origin: "http://elsewhere.example" };
    const refused = await talkSent(
      new Request("http://localhost/l/x/comment?of=check", { method: "POST", body, headers: foreign }),
      at,
    );
    expect(refused.status).toBe(403);
    expect(await threads()).toHaveLength(1);
  });
});
