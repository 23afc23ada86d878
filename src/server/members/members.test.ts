import { afterAll, afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { POST as doUseCase } from "@/app/api/do/[useCase]/route";
import { membership } from "@/contract";
import type { AuditRow, MemberAccount } from "@/contract/members";
import { fileUseCases, type Member, memberOfKey, runUseCase, useCases } from "@/server";
import { Browser, openSignedIn, ownersPassword } from "../testing/signedIn";
import { leaveWorkspace } from "../testing/workspace";
import { memberById } from "./members";

let owner: Browser;
beforeEach(async () => {
  owner = await openSignedIn();
});
afterEach(() => {
  delete process.env.LANE_SIGN_IN;
  vi.useRealTimers();
});
afterAll(leaveWorkspace);

/** The clock stands still, so that what waits for a second waits however long a password takes to be looked at. */
const standsStill = (at = Date.now()) => vi.useFakeTimers({ now: at, toFake: ["Date"] });

/** Asks for a use case as a browser's window does. */
const asked = async (browser: Browser, name: string, input: unknown = {}) =>
  doUseCase(browser.request(`/api/do/${name}`, "POST", input), { params: Promise.resolve({ useCase: name }) });
const done = async <Output = unknown>(browser: Browser, name: string, input: unknown = {}): Promise<Output> => {
  const answer = await asked(browser, name, input);
  if (!answer.ok) throw new Error(await answer.text());
  return answer.json() as Promise<Output>;
};
const codeOf = async (answer: Response) => ((await answer.json()) as { error?: { code: string } }).error?.code;
const accounts = async () => (await done<{ accounts: MemberAccount[] }>(owner, membership.listAccounts.name)).accounts;

const tilda = { id: "tilda", name: "Tilda Quist", roles: [], seat: "analyst", email: "tilda@quillmere.example" };
const tildasPassword = "four legs and a ladder";
/** A member with a password, signed in. */
async function invited(member: object = {}): Promise<Browser> {
  await done(owner, "setMember", { ...tilda, ...member });
  const { token } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
  const browser = new Browser();
  const answer = await browser.act("invitation", { token, password: tildasPassword });
  expect(answer.status).toBe(200);
  return browser;
}

describe("the first owner", () => {
  test("is who knows the code, once", async () => {
    expect(await owner.state()).toMatchObject({ signsIn: true, isOwned: true, member: { name: "Ines Orr" } });
    const second = new Browser();
    const again = {
      code: "x",
      name: "Somebody",
      email: "somebody@quillmere.example",
      password: "a password that is long",
    };
    expect((await second.act("owner", again)).status).toBe(403);
    expect((await accounts()).map(({ email }) => email)).toEqual(["ines@quillmere.example"]);
  });
});

describe("signing in", () => {
  test("a session is a cookie that no script reads, and that goes along from pages of ours alone", async () => {
    const browser = new Browser();
    const answer = await browser.signIn("Ines@Quillmere.example ", ownersPassword);
    const [cookie = ""] = answer.headers.getSetCookie();
    expect(cookie).toMatch(/^lane\.session_token=/);
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/i);
    expect(cookie).toMatch(/Max-Age=604800/);
    expect(await answer.text()).toBe("{}");
    expect((await asked(browser, "openHome")).status).toBe(200);
  });

  test("without a session, with a made-up one, or with one that has ended, nothing is answered", async () => {
    const [, token = ""] = /lane\.session_token=([^;]+)/.exec(owner.cookie) ?? [];
    const forged = token.replace(/\..*/, `.${"A".repeat(43)}%3D`);
    for (const cookie of [
      "",
      "lane.session_token=made.up",
      `lane.session_token=${forged}`,
      "lane-member=member-local",
    ]) {
      const request = new Request("http://localhost:4310/api/do/openHome", {
        method: "POST",
        headers: { host: "localhost:4310", "content-type": "application/json", cookie },
        body: "{}",
      });
      const answer = await doUseCase(request, { params: Promise.resolve({ useCase: "openHome" }) });
      expect([answer.status, await codeOf(answer)], cookie).toEqual([401, "signed-out"]);
    }
    const kept = owner.cookie;
    await owner.signOut();
    expect(owner.cookie).toBe("");
    const stolen = new Request("http://localhost:4310/api/do/openHome", {
      method: "POST",
      headers: { host: "localhost:4310", "content-type": "application/json", cookie: kept },
      body: "{}",
    });
    expect((await doUseCase(stolen, { params: Promise.resolve({ useCase: "openHome" }) })).status).toBe(401);
  });

  test("whether an address is known is not told: the same words, the same waiting", async () => {
    standsStill();
    const tries = async (email: string) => {
      const said: unknown[] = [];
      for (let at = 0; at < 5; at++) said.push(await (await new Browser().signIn(email, "not the password")).json());
      return said;
    };
    expect(await tries("ines@quillmere.example")).toEqual(await tries("nobody@quillmere.example"));
  });

  test("wrong ones in a row have to wait longer and longer, many at once no less; the right one begins anew", async () => {
    standsStill();
    const wrong = await Promise.all(
      Array.from({ length: 10 }, () => new Browser().signIn("ines@quillmere.example", "not the password")),
    );
    const states = wrong.map(({ status }) => status);
    expect(states.filter((status) => status === 403)).toHaveLength(3);
    expect(states.filter((status) => status === 429)).toHaveLength(7);
    expect((await new Browser().signIn("ines@quillmere.example", ownersPassword)).status).toBe(429);
    expect((await accounts())[0]?.waits).toBeGreaterThan(0);
    standsStill(Date.now() + 60_000);
    expect((await new Browser().signIn("ines@quillmere.example", ownersPassword)).status).toBe(200);
    expect((await new Browser().signIn("ines@quillmere.example", "not it again")).status).toBe(403);
  });

  test("a session ends after a week", async () => {
    standsStill(Date.now() + 8 * 24 * 3_600_000);
    expect((await asked(owner, "openHome")).status).toBe(401);
  });
});

describe("members", () => {
  test("come in by a link, once, and within three days", async () => {
    const browser = await invited();
    expect(await browser.state()).toMatchObject({ member: { name: "Tilda Quist" } });
    const { token } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
    const { token: newer } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
    const take = (one: string) => new Browser().act("invitation", { token: one, password: "another long password" });
    expect((await take(token)).status).toBe(404);
    expect((await new Browser().act("invitation", { token: newer, password: "short" })).status).toBe(400);
    const taken = await Promise.all([take(newer), take(newer)]);
    expect(taken.map(({ status }) => status).sort()).toEqual([200, 404]);
    // Whoever reset it may have had to: sessions from before are over.
    expect((await asked(browser, "openHome")).status).toBe(401);
    const { token: old } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
    standsStill(Date.now() + 3 * 24 * 3_600_000 + 1_000);
    expect((await take(old)).status).toBe(404);
  });

  test("an invitation lets somebody in who had to wait after wrong passwords", async () => {
    await invited();
    standsStill();
    for (let at = 0; at < 5; at++) await new Browser().signIn(tilda.email, "not the password");
    expect((await new Browser().signIn(tilda.email, tildasPassword)).status).toBe(429);
    const { token } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
    expect((await new Browser().act("invitation", { token, password: "another long password" })).status).toBe(200);
  });

  test("whose access is taken away have none at once: session, password, link, key", async () => {
    const browser = await invited({ seat: "owner" });
    const { key } = await done<{ key: string }>(browser, "makeKey", { id: "k", name: "Intake" });
    const { token } = await done<{ token: string }>(owner, "inviteMember", { id: "tilda" });
    expect(await memberOfKey(key)).toMatchObject({ id: "tilda" });
    await done(owner, "removeMember", { id: "tilda" });
    expect((await asked(browser, "openHome")).status).toBe(401);
    expect((await browser.signIn(tilda.email, tildasPassword)).status).toBe(403);
    expect((await new Browser().act("invitation", { token, password: "another long password" })).status).toBe(404);
    expect(await memberOfKey(key)).toBeUndefined();
    expect(await memberById("tilda")).toBeUndefined();
  });

  test("an address that is changed opens nothing by the old one", async () => {
    const browser = await invited();
    await done(owner, "setMember", { ...tilda, email: "t.quist@quillmere.example" });
    expect((await new Browser().signIn(tilda.email, tildasPassword)).status).toBe(403);
    expect((await new Browser().signIn("t.quist@quillmere.example", tildasPassword)).status).toBe(200);
    expect(await codeOf(await asked(owner, "setMember", { ...tilda, email: "ines@quillmere.example" }))).toBe(
      "address-taken",
    );
    await done(owner, "setMember", { ...tilda, email: null });
    expect((await asked(browser, "openHome")).status).toBe(401);
  });

  test("there is always an owner, also when two leave at once", async () => {
    const me = (await done<{ me: string }>(owner, "listMembers")).me;
    const asAnalyst = { id: me, name: "Ines Orr", roles: [], seat: "analyst" };
    expect(await codeOf(await asked(owner, "setMember", asAnalyst))).toBe("last-owner");
    expect(await codeOf(await asked(owner, "removeMember", { id: me }))).toBe("own-access");
    const other = await invited({ seat: "owner" });
    const answers = await Promise.all([
      asked(owner, "setMember", asAnalyst),
      asked(other, "setMember", { ...tilda, seat: "analyst", email: tilda.email }),
    ]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  });

  test("change their own password for the old one, which ends their other sessions", async () => {
    const browser = await invited();
    const other = new Browser();
    await other.signIn(tilda.email, tildasPassword);
    expect((await browser.act("password", { before: "wrong", password: "another long password" })).status).toBe(403);
    const sessions = (await (await browser.look("sessions")).json()) as { sessions: { id: string; isThis: boolean }[] };
    expect(sessions.sessions.map(({ isThis }) => isThis).sort()).toEqual([false, true]);
    expect((await browser.act("password", { before: tildasPassword, password: "another long password" })).status).toBe(
      200,
    );
    expect((await asked(browser, "openHome")).status).toBe(200);
    expect((await asked(other, "openHome")).status).toBe(401);
  });

  test("are signed out everywhere by an owner", async () => {
    const browser = await invited();
    await done(owner, "signOutMember", { id: "tilda" });
    expect((await asked(browser, "openHome")).status).toBe(401);
    expect((await browser.signIn(tilda.email, tildasPassword)).status).toBe(200);
    expect((await asked(owner, "signOutMember", { id: "nobody" })).status).toBe(404);
  });

  test("end one of their own sessions, and nobody else's", async () => {
    const browser = await invited();
    const other = new Browser();
    await other.signIn(tilda.email, tildasPassword);
    const { sessions } = (await (await owner.look("sessions")).json()) as { sessions: { id: string }[] };
    await browser.act("end", { id: sessions[0]?.id });
    expect((await asked(owner, "openHome")).status).toBe(200);
    const own = (await (await browser.look("sessions")).json()) as { sessions: { id: string; isThis: boolean }[] };
    await browser.act("end", { id: own.sessions.find(({ isThis }) => !isThis)?.id });
    expect((await asked(other, "openHome")).status).toBe(401);
    expect((await asked(browser, "openHome")).status).toBe(200);
  });
});

describe("what was done", () => {
  test("is noted with who did it, also what was refused, and a wrong password", async () => {
    const browser = await invited({ seat: "reader" });
    await asked(browser, "createArea", { id: "a", name: "Connections", parent: null });
    await done(owner, "createArea", { id: "a", name: "Connections", parent: null });
    await new Browser().signIn(tilda.email, "not the password");
    const { rows } = await done<{ rows: AuditRow[] }>(owner, "listAudit");
    const lines = rows.map(({ memberName, act, isRefused }) => `${memberName}: ${act}${isRefused ? ", refused" : ""}`);
    expect(lines.slice(0, 3)).toEqual([
      "Tilda Quist: signInFailed, refused",
      "Ines Orr: createArea",
      "Tilda Quist: createArea, refused",
    ]);
    expect(lines).toContain("Tilda Quist: takeInvitation");
    expect(lines).toContain("Ines Orr: becomeOwner");
    const hers = await done<{ rows: AuditRow[] }>(owner, "listAudit", { member: "tilda" });
    expect(new Set(hers.rows.map(({ memberName }) => memberName))).toEqual(new Set(["Tilda Quist"]));
    expect((await asked(browser, "listAudit")).status).toBe(403);
  });
});

describe("a restore", () => {
  test("leaves who may sign in as it is; no backup carries passwords, sessions or the secret", async () => {
    const browser = await invited();
    const me = (await memberById((await done<{ me: string }>(owner, "listMembers")).me)) as Member;
    const { bytes } = (await runUseCase(me, fileUseCases.backup, {})) as { bytes: Uint8Array };
    const { readBackup } = await import("../workspace/backupFile");
    const content = JSON.stringify(await readBackup(bytes));
    expect(content).not.toMatch(/signIn|secret|audit|quillmere\.example/);
    await done(owner, "setMember", { id: "oran", name: "Oran Veltri", roles: [], email: "oran@quillmere.example" });
    await runUseCase(me, fileUseCases.restore, { bytes });
    expect((await asked(owner, "openHome")).status).toBe(200);
    expect((await asked(browser, "openHome")).status).toBe(200);
    const { members } = await done<{ members: { id: string; seat: string }[] }>(owner, "listMembers");
    expect(members.find(({ id }) => id === me.id)?.seat).toBe("owner");
    expect(members.map(({ id }) => id)).toContain("oran");
    expect(Object.keys(useCases)).toContain("listAudit");
  });
});
