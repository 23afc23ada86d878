import { runInNewContext } from "node:vm";
import { afterEach, expect, test, vi } from "vitest";
import { inVersion } from "@/contract";
import { ask } from "./ask";
import { askAhead } from "./askedAhead";

const page = globalThis as { laneAhead?: unknown };
afterEach(() => {
  vi.unstubAllGlobals();
  page.laneAhead = undefined;
});

/** Runs the script as a page does before its application is there, and counts what the application asks for itself. */
function loaded(version: string, answer: () => Promise<Response>) {
  const sent: [string, RequestInit][] = [];
  const place: { laneAhead?: unknown; fetch: typeof fetch } = {
    fetch: (path, how) => {
      sent.push([String(path), how as RequestInit]);
      return answer();
    },
  };
  runInNewContext(askAhead(inVersion.openVersion, { version }), place);
  page.laneAhead = place.laneAhead;
  const asked = vi.fn(async () => Response.json({ from: "asked again" }));
  vi.stubGlobal("fetch", asked);
  return { sent, asked };
}

test("what a page asked ahead is taken over by the same question, once", async () => {
  const { sent, asked } = loaded("v", async () => Response.json({ from: "asked ahead" }));
  expect(sent).toEqual([
    [
      "/api/do/openVersion",
      { method: "POST", headers: { "content-type": "application/json" }, body: '{"version":"v"}' },
    ],
  ]);
  expect(await ask(inVersion.openVersion, { version: "v" })).toEqual({ from: "asked ahead" });
  expect(asked).not.toHaveBeenCalled();
  expect(await ask(inVersion.openVersion, { version: "v" })).toEqual({ from: "asked again" });
});

test("another question is asked for itself, and leaves the answer to the one it is for", async () => {
  const { asked } = loaded("v", async () => Response.json({ from: "asked ahead" }));
  expect(await ask(inVersion.openVersion, { version: "w" })).toEqual({ from: "asked again" });
  expect(asked).toHaveBeenCalledTimes(1);
  expect(await ask(inVersion.openVersion, { version: "v" })).toEqual({ from: "asked ahead" });
});

test("a question that was lost, or refused, is told as any other is", async () => {
  loaded("v", () => Promise.reject(new TypeError("no network")));
  await expect(ask(inVersion.openVersion, { version: "v" })).rejects.toMatchObject({ code: "no-answer" });
  loaded("gone", async () => Response.json({ error: { code: "no-version", message: "gone" } }, { status: 404 }));
  await expect(ask(inVersion.openVersion, { version: "gone" })).rejects.toMatchObject({
    code: "no-version",
    status: 404,
  });
});

test.each(["</script><script>alert(1)</script>", '"};alert(1)//', "a\\u2028\u2028b", "<!--", "ä 'quoted' \\"])(
  "an address that says %j ends neither the script nor its text",
  (version) => {
    expect(askAhead(inVersion.openVersion, { version })).not.toMatch(/<[/!]/);
    const { sent } = loaded(version, async () => Response.json({}));
    expect(sent).toHaveLength(1);
    expect(JSON.parse(String(sent[0]?.[1].body))).toEqual({ version });
  },
);
