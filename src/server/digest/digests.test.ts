import { afterAll, beforeEach, describe, expect, test, vi } from "vitest";
import { smallModel } from "@/core/testing/models";
import { startMailbox } from "../../../scripts/standInMailbox.mjs";
import { importModel, leaveWorkspace, openWorkspace, run } from "../testing/workspace";
import { sendDigests } from "./digests";
import { type Mail, mailServer, sendMail } from "./mail";
import { digestOf } from "./waiting";

const server = { url: "smtp://127.0.0.1:1", from: "lane@lane.example" };
const morning = new Date("2027-03-01T07:00:00Z");
const origin = "http://lane.example";

describe("a digest", () => {
  const about = { kind: "element", key: "check", words: "Check application" } as const;
  const said = { id: "s", member: "m", name: "Ines Orr", at: "2027-03-01", mentions: [], editedAt: null };
  const thread = (text: string) => ({
    ...{ id: "t", about, said: [{ ...said, text }], assigned: "a", resolved: null },
    ...{ version: "v 1", versionName: "As-is", process: "Applications" },
  });
  const review = {
    id: "r",
    version: "v",
    question: "Right?",
    due: "2027-03-05",
    name: "Ines",
    versionName: "",
    process: "P",
  };
  const to = { name: "Ada", email: "ada@lane.example" };

  test("tells what waits, each with its place, in plain text", () => {
    const mail = digestOf({ threads: [thread("Who\nchecks?")], reviews: [review], overdue: 2 }, to, origin);
    expect(mail?.subject).toBe("Lucid Lane: 1 comment, 1 review, 2 pieces of overdue work");
    expect(mail?.text).toContain(
      "Applications, Check application: Ines Orr: Who checks? (http://lane.example/v/v%201/diagram)",
    );
    expect(mail?.text).toContain("P: Right?, answers by 2027-03-05");
    expect(mail?.text).toContain("Work that is overdue: 2 (http://lane.example/work)");
  });

  test("is none where nothing waits, and no longer than what is read", () => {
    expect(digestOf({ threads: [], reviews: [], overdue: 0 }, to, origin)).toBeUndefined();
    const many = Array.from({ length: 50 }, () => thread("x".repeat(5_000)));
    const mail = digestOf({ threads: many, reviews: [], overdue: 0 }, to, origin);
    expect(mail?.text).toContain("and 30 more");
    expect(mail?.text.length).toBeLessThan(8_000);
  });
});

test.each([
  [{}, undefined],
  [{ LANE_MAIL: "not an address" }, undefined],
  [{ LANE_MAIL: "http://mail.example" }, undefined],
  [{ LANE_MAIL: "smtp://mail.example:25" }, { url: "smtp://mail.example:25", from: "Lucid Lane <lane@mail.example>" }],
  [
    { LANE_MAIL: "smtps://mail.example", LANE_MAIL_FROM: "a@b.example" },
    { url: "smtps://mail.example", from: "a@b.example" },
  ],
])("the mail server of %j", (env, expected) =>
  expect(mailServer(env as unknown as NodeJS.ProcessEnv)).toEqual(expected),
);

describe("digests of a workspace", () => {
  afterAll(leaveWorkspace);
  let version: string;
  beforeEach(async () => {
    await openWorkspace();
    version = await importModel("Applications", smallModel());
    const member = { roles: [], seat: "analyst", areas: [] };
    await run("setMember", { id: "ada", name: "Ada", ...member, email: "ada@lane.example" });
    await run("setMember", { id: "idle", name: "Idle", ...member, email: "idle@lane.example" });
    await run("setMember", { id: "nowhere", name: "Nowhere", ...member });
    const about = { kind: "version", key: "", words: "Applications" };
    const asked = { about, text: "For you, Ada.", mentions: ["ada", "nowhere"], assigned: null };
    await run("startThread", { version, thread: "t", said: "s", ...asked });
  });

  test("go once a day to who has an address and something waiting, however many look", async () => {
    const mails: Mail[] = [];
    const send = async (_: unknown, mail: Mail) => void mails.push(mail);
    expect(await sendDigests(new Date("2027-03-01T03:00:00Z"), origin, server, send)).toBe(0);
    const looks = await Promise.all([1, 2, 3].map(() => sendDigests(morning, origin, server, send)));
    expect(looks.reduce((sum, one) => sum + one, 0)).toBe(1);
    expect(await sendDigests(morning, origin, server, send)).toBe(0);
    expect(mails.map(({ to }) => to)).toEqual(["ada@lane.example"]);
    expect(mails[0]?.text).toContain("For you, Ada.");
    expect(await sendDigests(new Date("2027-03-02T07:00:00Z"), origin, server, send)).toBe(1);
    await run("settleThread", { version, thread: "t", isResolved: true });
    expect(await sendDigests(new Date("2027-03-03T07:00:00Z"), origin, server, send)).toBe(0);
  });

  test("that could not be sent are tried again; without a mail server there are none", async () => {
    const logged = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const broken = async () => {
      throw new Error("no mail server");
    };
    expect(await sendDigests(morning, origin, server, broken)).toBe(0);
    expect(logged).toHaveBeenCalledWith("A digest could not be sent: no mail server");
    logged.mockRestore();
    expect(await sendDigests(morning, origin, undefined, broken)).toBe(0);
    const mails: Mail[] = [];
    expect(await sendDigests(morning, origin, server, async (_, mail) => void mails.push(mail))).toBe(1);
  });

  test("reach a mailbox by SMTP, whatever stands in them", async () => {
    const got: { to: readonly string[]; text: string }[] = [];
    const mailbox = await startMailbox((mail) => void got.push(mail), 0);
    try {
      const mail = { to: "ada@lane.example", subject: "Grüße\r\nBcc: x@y.example", text: "Zähler\r\n.\r\nQUIT\r\nEnd" };
      await sendMail({ url: `smtp://127.0.0.1:${mailbox.port}`, from: "lane@lane.example" }, mail);
      expect(got).toHaveLength(1);
      expect(got[0]?.to).toEqual(["ada@lane.example"]);
      expect(got[0]?.text).not.toMatch(/^Bcc:/m);
      expect(got[0]?.text).toMatch(/End/);
    } finally {
      await mailbox.stop();
    }
    await expect(
      sendMail(
        { url: `smtp://127.0.0.1:${mailbox.port}`, from: "a@b.example" },
        { to: "a@b.example", subject: "", text: "" },
      ),
    ).rejects.toThrow();
  });
});
