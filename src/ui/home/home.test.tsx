// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { act, cleanup, render, renderHook, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { AppRouterContext, type AppRouterInstance } from "next/dist/shared/lib/app-router-context.shared-runtime";
import type { ReactNode } from "react";
import { afterEach, describe, expect, test, vi } from "vitest";
import type { HomeData, HomeGroup, HomeProcess, HomeVersion } from "@/contract/home";
import { ProcessTable } from "./ProcessTable";
import { useCounting } from "./useCounting";
import { useOpenFiles } from "./useOpenFiles";

const push = vi.fn();
const wrapper = ({ children }: { readonly children: ReactNode }) => (
  <AppRouterContext.Provider value={{ push } as unknown as AppRouterInstance}>{children}</AppRouterContext.Provider>
);
afterEach(() => {
  cleanup();
  push.mockClear();
  vi.unstubAllGlobals();
});

const filesOf = (...names: string[]) => names.map((name) => new File(["x"], name)) as unknown as FileList;

describe("files that are opened on Home", () => {
  /** A server that takes what is sent, and remembers where to. */
  function taking(fails: readonly string[] = []) {
    const asked: string[] = [];
    vi.stubGlobal("fetch", async (path: string) => {
      asked.push(path);
      const name = new URL(path, "http://localhost").searchParams.get("name") ?? "";
      return fails.includes(name)
        ? new Response(JSON.stringify({ error: { code: "unreadable", message: "no" } }), { status: 422 })
        : new Response(JSON.stringify({ version: `v-${name}` }));
    });
    return asked;
  }

  test("several, where there is no area yet, come into one that is made for all of them", async () => {
    const asked = taking();
    const firstArea = vi.fn(async () => "first");
    const opened = vi.fn(async () => {});
    const { result } = renderHook(() => useOpenFiles("", firstArea, opened), { wrapper });
    await act(() => result.current.open(filesOf("a.bpmn", "b.bpmn", "c.csv")));
    expect(firstArea).toHaveBeenCalledTimes(1);
    expect(asked.map((path) => new URL(path, "http://localhost").searchParams.get("area"))).toEqual([
      "first",
      "first",
      "first",
    ]);
    expect(opened).toHaveBeenCalledTimes(3);
    // Of several none is gone to.
    expect(push).not.toHaveBeenCalled();
    expect(result.current.reading).toBeNull();
  });

  test("one is gone to; one that cannot be read stops none of the others", async () => {
    const asked = taking(["bad.bpmn"]);
    const reading = () =>
      useOpenFiles(
        "area",
        async () => "",
        async () => {},
      );
    const { result } = renderHook(reading, { wrapper });
    await act(() => result.current.open(filesOf("a.bpmn")));
    expect(push).toHaveBeenCalledWith("/v/v-a.bpmn/diagram");
    await act(() => result.current.open(filesOf("bad.bpmn", "good.bpmn")));
    expect(asked).toHaveLength(3);
  });
});

describe("the table of processes", () => {
  const process = (at: number): HomeProcess => ({
    id: `p${at}`,
    name: `Process ${at}`,
    area: at < 2 ? "a" : "b",
    need: at === 1 ? "opening" : "looking",
    brief: null,
  });
  const version = (at: number, change: Partial<HomeVersion> = {}): HomeVersion => ({
    id: `v${at}`,
    process: `p${at}`,
    kind: "as-is",
    name: "As-is",
    source: null,
    changedAt: "2026-11-28T09:00:00Z",
    sequence: 1,
    revision: 2,
    handedOff: 0,
    live: { runs: 0, incidents: 0, logs: 0 },
    comments: 0,
    review: null,
    builds: null,
    damaged: null,
    summary: { steps: 3, shapes: 5, errors: 0, warnings: 2, advice: 0, walks: 0, failingWalks: 0 },
    ...change,
  });
  const data: HomeData = {
    areas: [
      { id: "a", name: "Connections", parent: null, processes: 120 },
      { id: "b", name: "Accounts", parent: null, processes: 0 },
    ],
    total: 120,
    processes: [process(0), process(1), process(2)],
    versions: [version(0), version(1, { damaged: "It cannot be read." }), version(2, { summary: null })],
    counting: 1,
  };
  function shown(from = 0, group: HomeGroup = "none") {
    const told = { onOrder: vi.fn(), onFrom: vi.fn() };
    const acts = { onRename: vi.fn(), onCopy: vi.fn(), onMove: vi.fn(), onDelete: vi.fn() };
    render(
      <ChakraProvider value={defaultSystem}>
        <ProcessTable data={data} order="own" group={group} from={from} acts={acts} {...told} />
      </ChakraProvider>,
      { wrapper },
    );
    return told;
  }

  test("says of each version what was counted, that it cannot be opened, or that it is not counted yet", () => {
    shown();
    const [, first, second, third] = screen.getAllByRole("row") as HTMLElement[];
    expect(within(first as HTMLElement).getByText("2 warnings")).toBeTruthy();
    expect(within(first as HTMLElement).getByText("Check: needs attention: 2")).toBeTruthy();
    expect(within(second as HTMLElement).getAllByText("cannot be opened").length).toBeGreaterThan(0);
    expect(within(third as HTMLElement).getByText("not counted yet")).toBeTruthy();
  });

  test("stands in groups, each with its name above its processes", () => {
    shown(0, "area");
    const headings = () => screen.getAllByRole("rowheader").map(({ textContent }) => textContent);
    expect(headings()).toEqual(["Connections", "Accounts"]);
    cleanup();
    shown(0, "need");
    expect(headings()).toEqual([
      "With warnings, or walks that go otherwise",
      "Cannot be opened",
      "With warnings, or walks that go otherwise",
    ]);
  });

  test("is ordered by its heads, and shown a page at a time", async () => {
    const { onOrder, onFrom } = shown(50);
    await userEvent.click(screen.getByRole("button", { name: "Last change" }));
    await userEvent.click(screen.getByRole("button", { name: "Process" }));
    expect(onOrder.mock.calls).toEqual([["changed"], ["name"]]);
    expect(screen.getByRole("status").textContent).toBe("51 to 53 of 120");
    await userEvent.click(screen.getByRole("button", { name: "Next" }));
    await userEvent.click(screen.getByRole("button", { name: "Before" }));
    expect(onFrom.mock.calls).toEqual([[100], [0]]);
  });
});

describe("numbers that are being counted", () => {
  test("are asked for again, less and less often, until they are there", () => {
    vi.useFakeTimers();
    const again = vi.fn();
    const { rerender, unmount } = renderHook(({ counting }) => useCounting(counting, again), {
      initialProps: { counting: 0 },
    });
    vi.advanceTimersByTime(60_000);
    expect(again).not.toHaveBeenCalled();
    rerender({ counting: 3 });
    vi.advanceTimersByTime(700);
    expect(again).toHaveBeenCalledTimes(1);
    // Fewer of them being counted does not begin anew.
    rerender({ counting: 1 });
    vi.advanceTimersByTime(980);
    expect(again).toHaveBeenCalledTimes(2);
    vi.advanceTimersByTime(600_000);
    expect(again.mock.calls.length).toBeLessThan(60);
    rerender({ counting: 0 });
    const asked = again.mock.calls.length;
    vi.advanceTimersByTime(60_000);
    expect(again).toHaveBeenCalledTimes(asked);
    unmount();
    vi.useRealTimers();
  });
});
