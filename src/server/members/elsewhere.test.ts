import { afterAll, afterEach, beforeEach, describe, expect, test } from "vitest";
import { GET as comeBack } from "@/app/api/session/auth/callback/[provider]/route";
// @ts-expect-error: a script that ships, without types.
import { startProvider } from "../../../scripts/standInProvider.mjs";
import { Browser, openSignedIn } from "../testing/signedIn";
import { leaveWorkspace } from "../testing/workspace";
import { forgetAuth } from "./signIn";

let provider: { readonly issuer: string; readonly stop: () => Promise<void> };
beforeEach(async () => {
  provider = await startProvider(0);
  process.env.LANE_OIDC_ISSUER = provider.issuer;
  process.env.LANE_OIDC_CLIENT = "lane";
  process.env.LANE_OIDC_NAME = "Quillmere's directory";
  await openSignedIn();
});
afterEach(async () => {
  await provider.stop();
  forgetAuth();
  for (const name of ["LANE_SIGN_IN", "LANE_OIDC_ISSUER", "LANE_OIDC_CLIENT", "LANE_OIDC_NAME"])
    delete process.env[name];
});
afterAll(leaveWorkspace);

const followed = async (browser: Browser, address: string) => {
  const { pathname, search } = new URL(address);
  expect(pathname).toBe("/api/session/auth/callback/elsewhere");
  return browser.took(await comeBack(browser.request(`${pathname}${search}`)));
};
/** From the door to the provider and back, as the person named there. */
async function cameBack(browser: Browser, as: string, change: (address: URL) => void = () => {}) {
  const away = await browser.look("elsewhere", "?to=%2Fwork");
  expect(away.status).toBe(302);
  const there = new URL(away.headers.get("location") ?? "");
  there.searchParams.set("as", as);
  const sent = await fetch(there, { redirect: "manual" });
  const back = new URL(sent.headers.get("location") ?? "");
  change(back);
  return followed(browser, String(back));
}

describe("signing in by a provider elsewhere (OpenID Connect)", () => {
  test("leads there with a challenge and a number of its own, and back to the page one wanted, signed in", async () => {
    const browser = new Browser();
    const away = await browser.look("elsewhere", "?to=%2Fwork");
    const asked = new URL(away.headers.get("location") ?? "").searchParams;
    expect(Object.fromEntries(asked)).toMatchObject({
      response_type: "code",
      client_id: "lane",
      code_challenge_method: "S256",
      redirect_uri: "http://localhost:4310/api/session/auth/callback/elsewhere",
    });
    expect((asked.get("state") ?? "").length).toBeGreaterThan(15);
    expect((asked.get("nonce") ?? "").length).toBeGreaterThan(15);
    const back = await cameBack(browser, "ines");
    expect([back.status, back.headers.get("location")]).toEqual([302, "/work"]);
    expect(await browser.state()).toMatchObject({ member: { name: "Ines Orr" }, provider: "Quillmere's directory" });
  });

  test("lets nobody in who is no member, and makes nobody one", async () => {
    const browser = new Browser();
    const back = await cameBack(browser, "tilda");
    expect(back.headers.get("location")).toMatch(/\/sign-in\?.*error=/);
    expect(await browser.state()).toMatchObject({ member: null });
  });

  test("lets nobody in on an address that the provider has not proven", async () => {
    const browser = new Browser();
    const back = await cameBack(browser, "claims");
    expect(back.headers.get("location")).toContain("error=");
    expect(await browser.state()).toMatchObject({ member: null });
    // Once proven and tied, it is the account there that counts.
    await cameBack(browser, "ines");
    expect(await browser.state()).toMatchObject({ member: { name: "Ines Orr" } });
  });

  test("takes no answer that it did not ask for: another's state, none, or one used twice", async () => {
    const victim = new Browser();
    const other = new Browser();
    await victim.look("elsewhere");
    const back = await cameBack(other, "ines", (address) => address.searchParams.set("state", "made-up-by-somebody"));
    expect(back.headers.get("location")).toContain("error=");
    expect(await other.state()).toMatchObject({ member: null });
    const third = new Browser();
    let again = "";
    await cameBack(third, "ines", (address) => {
      again = String(address);
    });
    const thief = new Browser();
    expect((await followed(thief, again)).headers.get("location")).toContain("error=");
    expect(await thief.state()).toMatchObject({ member: null });
  });

  test("leads to no page of another site afterwards", async () => {
    const browser = new Browser();
    for (const to of ["//elsewhere.example", "https://elsewhere.example", "/\\elsewhere.example"]) {
      const away = await browser.look("elsewhere", `?to=${encodeURIComponent(to)}`);
      const there = new URL(away.headers.get("location") ?? "");
      there.searchParams.set("as", "ines");
      const sent = await fetch(there, { redirect: "manual" });
      expect((await followed(browser, sent.headers.get("location") ?? "")).headers.get("location")).toBe("/");
    }
  });
});
