// @vitest-environment jsdom
import {
  Box,
  Button,
  ChakraProvider,
  chakra,
  createSystem,
  defaultConfig,
  Menu,
  type SystemContext,
} from "@chakra-ui/react";
import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import { render } from "@testing-library/react";
import fc from "fast-check";
import { describe, expect, test, vi } from "vitest";
import { remembering } from "./remembering";

const library = createSystem(defaultConfig);

/** What is drawn, and the names of the styles that it wrote, each a hash of what it says. */
function drawn(
  look: SystemContext,
  children: React.ReactNode,
  times = 1,
): { readonly page: string; readonly styles: readonly string[] } {
  const cache = createCache({ key: "test" });
  const all = () => (
    <CacheProvider value={cache}>
      <ChakraProvider value={look}>{children}</ChakraProvider>
    </CacheProvider>
  );
  const { container, rerender, unmount } = render(all());
  for (let time = 1; time < times; time++) rerender(all());
  const page = container.innerHTML;
  unmount();
  return { page, styles: Object.keys(cache.inserted).sort() };
}

const Card = chakra("section", { base: { padding: 4 }, variants: { tone: { loud: { color: "red.500" }, low: {} } } });
const BigCard = chakra(Card, { base: { padding: 8 }, variants: { dim: { true: { opacity: 0.5 } } } });

const page = (
  <Box p={2} _hover={{ color: "blue.500" }} className="own">
    <Card tone="loud" px={1} />
    <Card tone="low" mt={{ base: 1, md: 3 }} />
    <BigCard tone="loud" />
    <BigCard tone="low" dim css={[{ margin: 1 }, { "& > a": { color: "fg !important" } }]} />
    <Button size="sm" variant="outline" colorPalette="gray" />
    <Button size="xs" disabled />
    <Button asChild variant="plain">
      <a href="/">on</a>
    </Button>
    <chakra.span color="green.600/50" truncate />
    <Menu.Root open>
      <Menu.Content>
        <Menu.Item value="one">One</Menu.Item>
        <Menu.Item value="two">Two</Menu.Item>
      </Menu.Content>
    </Menu.Root>
  </Box>
);

describe("a look that remembers", () => {
  test("draws what the library draws, the first time and drawn again", () => {
    // Their identities count up from one page to the next.
    const plain = (text: string) => text.replaceAll(/(id|aria-labelledby|aria-controls|data-ownedby)="[^"]*"/g, "");
    const expected = drawn(library, page);
    expect(expected.styles.length).toBeGreaterThan(10);
    const look = remembering(library);
    for (const times of [1, 3]) {
      const seen = drawn(look, page, times);
      expect(plain(seen.page).split("<")).toEqual(plain(expected.page).split("<"));
      expect(seen.styles).toEqual(expected.styles);
    }
  });

  test("asks the library once for what is drawn many times", () => {
    const css = vi.fn(library.css);
    const cva = vi.fn(library.cva);
    const look = remembering({ ...library, css, cva: cva as SystemContext["cva"] });
    const Tile = chakra("div", { base: { padding: 1 } });
    drawn(
      look,
      Array.from({ length: 20 }, (_, at) => <Tile key={String(at)} m={at % 2} />),
      3,
    );
    expect(cva).toHaveBeenCalledTimes(1);
    expect(css).toHaveBeenCalledTimes(2);
  });

  const style = fc.record(
    {
      p: fc.constantFrom(1, 2, "3px"),
      color: fc.constantFrom("red.500", "fg !important", undefined),
      _hover: fc.record(
        { m: fc.nat(3), _dark: fc.record({ m: fc.nat(3) }, { requiredKeys: [] }) },
        { requiredKeys: [] },
      ),
      w: fc.constantFrom(undefined, [1, null, 3], { base: 1, md: 2 }),
    },
    { requiredKeys: [] },
  );
  test("takes no styles for others, whichever were held, made anew or forgotten in between", () => {
    const look = remembering(library);
    const said = (by: SystemContext, ...parts: readonly object[]) =>
      (by.css(...(parts as never[])) as unknown as { readonly styles: string }).styles;
    const held: object[] = [];
    fc.assert(
      fc.property(fc.array(style, { minLength: 1, maxLength: 3 }), fc.boolean(), (parts, isHeld) => {
        const all = isHeld && held.length > 0 ? [held[held.length % 7] ?? {}, ...parts] : parts;
        held.push(parts[0] as object);
        expect(said(look, ...all)).toBe(said(remembering(library), ...all));
      }),
      { numRuns: 500 },
    );
    const kept = held[0] as object;
    const own = (at: number) => ({ left: `${at}px` });
    const expected = said(remembering(library), kept, own(0));
    // More than are remembered, three times over; those that come after they were forgotten have numbers of their own again.
    for (let at = 0; at < 15_000; at++) {
      expect(said(look, { top: `${at}px` }, own(0))).toBe(`top:${at}px;left:0px;`);
      expect(said(look, kept, own(0))).toBe(expected);
    }
  });
});
