// @vitest-environment jsdom
import { cleanup, renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, test, vi } from "vitest";
import { compare } from "@/contract";
import type { Happened } from "@/contract/events";

afterEach(() => {
  cleanup();
  vi.doUnmock("./events");
  vi.unstubAllGlobals();
  vi.resetModules();
});

test("what many do in a second is asked for once when it is heard, and once when the second is over", async () => {
  let count = 0;
  vi.stubGlobal("fetch", async () => {
    count++;
    return new Response(JSON.stringify({ reasons: [] }));
  });
  // The events of others, told by hand.
  let tell: ((happened: Happened, isGuess: boolean) => void) | undefined;
  vi.resetModules();
  vi.doMock("./events", () => ({
    onHappened: (listener: typeof tell) => {
      tell = listener;
      return () => undefined;
    },
  }));
  const { QueriesProvider, useAsked } = await import("./queries");
  const wrapper = ({ children }: { readonly children: ReactNode }) => <QueriesProvider>{children}</QueriesProvider>;
  renderHook(() => useAsked(compare.listReasons, { version: "v", against: "w" }), { wrapper });
  await waitFor(() => expect(count).toBe(1));
  const others: Happened = { by: "completeWork", things: [{ kind: "version", id: "v" }] };
  const began = Date.now();
  const hear = () => {
    for (let act = 0; act < 100; act++) tell?.(others, false);
  };
  hear();
  await waitFor(() => expect(count).toBe(2));
  // Until two seconds have passed, no more than two more looks: one for each second.
  while (Date.now() - began < 2_000) {
    hear();
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  expect(count).toBeGreaterThan(2);
  expect(count).toBeLessThanOrEqual(4);
}, 60_000);
