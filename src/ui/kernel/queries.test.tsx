// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, test, vi } from "vitest";
import { compare, finding, home, inVersion } from "@/contract";
import { ask, useActsUnderWay } from "./ask";
import { expecting, forgetAnswers, knownNow, lookAgain, QueriesProvider, useAsked, useAskedEach } from "./queries";
import { useRested } from "./useRested";

interface Question {
  readonly name: string;
  readonly input: unknown;
  readonly init: RequestInit;
  readonly answer: (body: unknown, status?: number) => void;
  readonly lose: () => void;
}

/** A server that answers when it is told to. */
let asked: Question[] = [];
const open = (name: string) => {
  const at = asked.findIndex((one) => one.name === name);
  if (at < 0) throw new Error(`${name} was not asked`);
  return asked.splice(at, 1)[0] as Question;
};
const isAsked = (name: string) => waitFor(() => expect(asked.map((one) => one.name)).toContain(name));

beforeEach(() => {
  asked = [];
  vi.stubGlobal(
    "EventSource",
    class {
      close() {}
    },
  );
  vi.stubGlobal(
    "fetch",
    (path: string, init: RequestInit) =>
      new Promise((resolve, reject) => {
        asked.push({
          name: path.slice("/api/do/".length),
          input: JSON.parse(init.body as string),
          init,
          answer: (body, status = 200) => resolve(new Response(JSON.stringify(body), { status })),
          lose: () => reject(new TypeError("no network")),
        });
      }),
  );
});
afterEach(() => {
  cleanup();
  forgetAnswers();
  vi.unstubAllGlobals();
});

const wrapper = ({ children }: { readonly children: ReactNode }) => <QueriesProvider>{children}</QueriesProvider>;
const types = (...names: string[]) => ({ types: names.map((type) => ({ type, count: 1 })) });
const reasons = (...words: string[]) => ({ reasons: words.map((change) => ({ change })) }) as never;
const pair = { version: "v", against: "w" };

describe("answers of the server", () => {
  test("are asked for once, however many show them", async () => {
    const { result } = renderHook(() => [useAsked(finding.listTypes, {}), useAsked(finding.listTypes, {})], {
      wrapper,
    });
    await isAsked("listTypes");
    expect(asked).toHaveLength(1);
    open("listTypes").answer(types("user task"));
    await waitFor(() =>
      expect(result.current.map(({ data }) => data)).toEqual([types("user task"), types("user task")]),
    );
    expect(knownNow(finding.listTypes, {})).toEqual(types("user task"));
  });

  test("come to who wants them, also beside somebody who asks the same only later", async () => {
    const { rerender, result } = renderHook(
      ({ isWanted }) => [
        useAsked(compare.listReasons, pair),
        useAsked(compare.listReasons, pair, { isWanted }),
        // What it is about is not known yet: this cannot be asked, and is not.
        useAsked(compare.listReasons, { ...pair, version: "" }, { isWanted: false }),
      ],
      { wrapper, initialProps: { isWanted: false } },
    );
    await isAsked("listReasons");
    open("listReasons").answer(reasons("a"));
    await waitFor(() => expect(result.current[0]?.data).toEqual(reasons("a")));
    void lookAgain([{ kind: "version", id: "v" }]);
    await isAsked("listReasons");
    open("listReasons").answer(reasons("a", "b"));
    await waitFor(() => expect(result.current[0]?.data).toEqual(reasons("a", "b")));
    rerender({ isWanted: true });
    expect(result.current[1]?.data).toEqual(reasons("a", "b"));
    expect(result.current[2]?.data).toBeUndefined();
    expect(asked).toEqual([]);
  });

  test("are asked for again when something happened to what they are about, and to nothing else", async () => {
    renderHook(() => useAsked(compare.listReasons, pair), { wrapper });
    await isAsked("listReasons");
    open("listReasons").answer(reasons("a"));
    await waitFor(() => expect(knownNow(compare.listReasons, pair)).toBeDefined());
    void lookAgain([{ kind: "version", id: "another" }]);
    void lookAgain([{ kind: "directory" }]);
    expect(asked).toEqual([]);
    void lookAgain([{ kind: "version", id: "v" }]);
    await isAsked("listReasons");
  });

  test("that are from before something that was done meanwhile are shown, and asked for once more; others are not", async () => {
    const { result } = renderHook(
      () => [useAsked(compare.listReasons, pair), useAsked(inVersion.listRevisions, { version: "w" })],
      {
        wrapper,
      },
    );
    await isAsked("listReasons");
    void lookAgain([{ kind: "version", id: "v" }]);
    void lookAgain([{ kind: "version", id: "v" }]);
    // Not while it is on its way.
    expect(asked.map(({ name }) => name).sort()).toEqual(["listReasons", "listRevisions"]);
    open("listRevisions").answer({ revisions: [], changedSince: false });
    open("listReasons").answer(reasons("a"));
    await isAsked("listReasons");
    expect(result.current[0]?.data).toEqual(reasons("a"));
    open("listReasons").answer(reasons("a", "b"));
    await waitFor(() => expect(result.current[0]?.data).toEqual(reasons("a", "b")));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(asked).toEqual([]);
  });

  test("that fail are told, and the next question is a new one", async () => {
    const { result } = renderHook(() => useAsked(finding.listTypes, {}), { wrapper });
    await isAsked("listTypes");
    open("listTypes").answer({ error: { code: "damaged", message: "It cannot be read." } }, 422);
    await waitFor(() => expect(result.current.error?.message).toBe("It cannot be read."));
    void result.current.refetch();
    await isAsked("listTypes");
    open("listTypes").answer(types());
    await waitFor(() => expect(result.current.data).toEqual(types()));
  });

  test("are not asked for while nobody wants them; of several, each comes when it is there", async () => {
    const inputs = ["v", "w"].map((version) => ({ version }));
    const { result, rerender } = renderHook(({ isWanted }) => useAskedEach(inVersion.listRevisions, inputs, isWanted), {
      wrapper,
      initialProps: { isWanted: false },
    });
    expect(asked).toEqual([]);
    rerender({ isWanted: true });
    await waitFor(() => expect(asked).toHaveLength(2));
    const [first, second] = asked.splice(0);
    second?.answer({ revisions: [], changedSince: true });
    await waitFor(() => expect(result.current.map((one) => one !== undefined)).toEqual([false, true]));
    first?.answer({ revisions: [], changedSince: false });
    await waitFor(() => expect(result.current.every((one) => one !== undefined)).toBe(true));
  });

  test("the last one stays while the next is on its way, where that is wanted", async () => {
    const { result, rerender } = renderHook(({ text }) => useAsked(finding.find, { text }, { keepsLast: true }), {
      wrapper,
      initialProps: { text: "a" },
    });
    await isAsked("find");
    open("find").answer({ found: [] });
    await waitFor(() => expect(result.current.data).toEqual({ found: [] }));
    rerender({ text: "ab" });
    expect(result.current.data).toEqual({ found: [] });
    await isAsked("find");
  });
});

describe("acts whose outcome is shown at once", () => {
  const shown = () => knownNow(compare.listReasons, pair) as unknown as { reasons: { change: string }[] } | undefined;
  const names = () => shown()?.reasons.map(({ change }) => change);
  const give = (change: string) =>
    expecting(
      compare.listReasons,
      pair,
      (last) => ({ reasons: [...last.reasons, { change }] }) as never,
      () => ask(compare.giveReason, { ...pair, change, words: "", reason: null }),
    );
  const start = async () => {
    renderHook(() => useAsked(compare.listReasons, pair), { wrapper });
    await isAsked("listReasons");
    open("listReasons").answer(reasons("a"));
    await waitFor(() => expect(names()).toEqual(["a"]));
  };

  test("are sent in the order they were done, the next when the one before was answered", async () => {
    await start();
    const [first, second] = [give("b"), give("c")];
    expect(names()).toEqual(["a", "b", "c"]);
    await isAsked("giveReason");
    expect(asked.filter(({ name }) => name === "giveReason")).toHaveLength(1);
    open("giveReason").answer({});
    await waitFor(() =>
      expect(
        asked.some(({ name, input }) => name === "giveReason" && (input as { change: string }).change === "c"),
      ).toBe(true),
    );
    // What is asked for again meanwhile may be from before, and does not take its place.
    if (asked.some(({ name }) => name === "listReasons")) open("listReasons").answer(reasons("a", "b"));
    expect(names()).toEqual(["a", "b", "c"]);
    open("giveReason").answer({});
    await isAsked("listReasons");
    for (const one of asked.splice(0)) one.answer(reasons("a", "b", "c"));
    await Promise.all([first, second]);
    expect(names()).toEqual(["a", "b", "c"]);
  });

  test("one that was refused is taken back to what the server holds, and those after it are sent all the same", async () => {
    await start();
    const [first, second] = [give("b"), give("c")];
    await isAsked("giveReason");
    open("giveReason").answer({ error: { code: "refused", message: "no" } }, 409);
    await waitFor(() => expect(asked.some(({ name }) => name === "giveReason")).toBe(true));
    open("giveReason").answer({});
    const answers = setInterval(() => {
      for (const one of asked) if (one.name === "listReasons") one.answer(reasons("a", "c"));
    }, 10);
    await expect(first).rejects.toThrow("no");
    await second;
    clearInterval(answers);
    expect(names()).toEqual(["a", "c"]);
  });
});

describe("asking", () => {
  test("an act is sent to its end though the page is left, and counted until it is answered; a question is neither", async () => {
    const { result } = renderHook(() => useActsUnderWay());
    const act1 = ask(home.renameArea, { id: "a", name: "Accounts" });
    const question = ask(finding.listTypes, {});
    await waitFor(() => expect(result.current).toBe(1));
    expect(asked.find(({ name }) => name === "renameArea")?.init.keepalive).toBe(true);
    expect(asked.find(({ name }) => name === "listTypes")?.init.keepalive).toBeUndefined();
    await act(async () => {
      open("renameArea").answer({});
      await act1;
    });
    expect(result.current).toBe(0);
    open("listTypes").answer(types());
    await question;
  });

  test("one that is larger than browsers send for pages that are gone is sent as usual", async () => {
    const large = ask(home.renameArea, { id: "a", name: "x".repeat(20_000) });
    const question = open("renameArea");
    expect(question.init.keepalive).toBeUndefined();
    question.answer({});
    await large;
  });

  test("a lost answer is told apart from a refusal, and counted no longer", async () => {
    const { result } = renderHook(() => useActsUnderWay());
    const lost = ask(home.renameArea, { id: "a", name: "Accounts" });
    await act(async () => {
      open("renameArea").lose();
      await expect(lost).rejects.toMatchObject({ code: "no-answer", status: 0 });
    });
    expect(result.current).toBe(0);
    const refused = ask(home.renameArea, { id: "a", name: "Accounts" });
    open("renameArea").answer({ error: { code: "gone", message: "It is gone." } }, 404);
    await expect(refused).rejects.toMatchObject({ code: "gone", status: 404, message: "It is gone." });
    const broken = ask(home.renameArea, { id: "a", name: "Accounts" });
    open("renameArea").answer("not an object", 502);
    await expect(broken).rejects.toMatchObject({ status: 502 });
  });

  test("what is typed is asked for when it has come to rest", async () => {
    const { result, rerender } = renderHook(({ typed }) => useRested(typed, 40), { initialProps: { typed: "a" } });
    for (const typed of ["ab", "abc", "abcd"]) rerender({ typed });
    expect(result.current).toBe("a");
    await waitFor(() => expect(result.current).toBe("abcd"));
  });
});
