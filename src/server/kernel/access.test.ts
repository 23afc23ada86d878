import { expect, test } from "vitest";
import { contentPolicy, isOwnName, whyForeign } from "./access";

const asked = (method: string, headers: Record<string, string>) => ({
  method,
  header: (name: string) => headers[name] ?? null,
});
const own = { host: "localhost:4310" };

test.each<[what: string, method: string, headers: Record<string, string>, isAnswered: boolean]>([
  ["a page of ours", "GET", own, true],
  [
    "a page reached from a link elsewhere",
    "GET",
    { ...own, "sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate" },
    true,
  ],
  [
    "data asked for by a page of ours",
    "POST",
    { ...own, origin: "http://localhost:4310", "sec-fetch-site": "same-origin" },
    true,
  ],
  ["a program without a browser", "POST", own, true],
  ["the other local names", "POST", { host: "[::1]:4310" }, true],
  ["a name that another site points here (rebinding)", "GET", { host: "evil.example" }, false],
  ["no name", "GET", {}, false],
  ["a form of another site, from a browser that says so", "POST", { ...own, "sec-fetch-site": "cross-site" }, false],
  ["a form of another site, from a browser that does not", "POST", { ...own, origin: "http://evil.example" }, false],
  ["another port of this machine", "POST", { ...own, origin: "http://localhost:8080" }, false],
  ["a page in a sandbox", "POST", { ...own, origin: "null" }, false],
  [
    "a picture on another site that is data of ours",
    "GET",
    { ...own, "sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors" },
    false,
  ],
])("%s", (_, method, headers, isAnswered) => {
  expect(whyForeign(asked(method, headers), {} as NodeJS.ProcessEnv) === undefined).toBe(isAnswered);
});

test("where it listens says by which names it may be asked", () => {
  const at = (HOST: string, LANE_HOSTS = "") => ({ HOST, LANE_HOSTS }) as unknown as NodeJS.ProcessEnv;
  expect(isOwnName("192.168.1.5", at(""))).toBe(false);
  expect(isOwnName("192.168.1.5", at("0.0.0.0"))).toBe(true);
  expect(isOwnName("lane.quillmere.example", at("0.0.0.0"))).toBe(false);
  expect(isOwnName("lane.quillmere.example", at("0.0.0.0", "lane.quillmere.example"))).toBe(true);
  const behind = { LANE_ORIGIN: "https://lane.quillmere.example/" } as unknown as NodeJS.ProcessEnv;
  expect(isOwnName("lane.quillmere.example", behind)).toBe(true);
  expect(isOwnName("", behind)).toBe(false);
  expect(isOwnName("evil.example", behind)).toBe(false);
});

test("no script runs in a page but those that carry its number", () => {
  const policy = contentPolicy("abc", false);
  expect(policy).toContain("script-src 'self' 'nonce-abc' 'strict-dynamic'");
  expect(policy.split("; ").find((part) => part.startsWith("script-src"))).not.toMatch(/unsafe/);
});
