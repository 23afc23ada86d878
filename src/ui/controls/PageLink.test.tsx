// @vitest-environment jsdom
import { ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { AppRouterContext, type AppRouterInstance } from "next/dist/shared/lib/app-router-context.shared-runtime";
import { afterEach, expect, test, vi } from "vitest";
import { PageLink } from "./PageLink";

afterEach(cleanup);

/** Two links on a page, what is fetched of pages ahead, and what the first link is told of besides. */
function twoLinks() {
  const prefetch = vi.fn();
  const pointedAt = vi.fn();
  render(
    <AppRouterContext.Provider value={{ prefetch } as unknown as AppRouterInstance}>
      <ChakraProvider value={defaultSystem}>
        <PageLink href="/v/one/diagram" title="The first one" onMouseEnter={pointedAt}>
          One
        </PageLink>
        <PageLink href="/v/two/diagram">Two</PageLink>
      </ChakraProvider>
    </AppRouterContext.Provider>,
  );
  return { prefetch, pointedAt, user: userEvent.setup() };
}
const one = () => screen.getByRole("link", { name: "One" });

test("a link that is only seen fetches nothing; what it leads to and says stands on it", async () => {
  const { prefetch } = twoLinks();
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(prefetch).not.toHaveBeenCalled();
  expect([one().getAttribute("href"), one().title]).toEqual(["/v/one/diagram", "The first one"]);
});

test("what is pointed at is fetched, and nothing else; what somebody else wants of the pointer still comes", async () => {
  const { prefetch, pointedAt, user } = twoLinks();
  await user.hover(one());
  expect(prefetch.mock.calls).toEqual([["/v/one/diagram"]]);
  expect(pointedAt).toHaveBeenCalledTimes(1);
});

test("so is what the keyboard comes to, and what a finger is put on", async () => {
  const { prefetch, user } = twoLinks();
  await user.tab();
  expect(prefetch.mock.calls).toEqual([["/v/one/diagram"]]);
  fireEvent.touchStart(screen.getByRole("link", { name: "Two" }));
  expect(prefetch.mock.calls.at(-1)).toEqual(["/v/two/diagram"]);
});
