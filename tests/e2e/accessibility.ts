import type { Page } from "@playwright/test";
import axe from "axe-core";

/** What of a page keeps people out, as rules that are held everywhere can tell: each by its rule, where it is, and why. */
export async function violations(page: Page): Promise<string[]> {
  // A page that is looked at several times is given it once: to read it takes as long as to look.
  for (const frame of page.frames())
    if (!(await frame.evaluate(() => "axe" in globalThis))) await frame.evaluate(axe.source);
  const { violations: found } = await page.evaluate(
    (values) =>
      (globalThis as unknown as { axe: typeof axe }).axe.run({
        runOnly: { type: "tag", values },
        resultTypes: ["violations"],
      }),
    ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"],
  );
  return found.flatMap((violation) =>
    violation.nodes.map(
      (node) => `${violation.id}: ${node.target.join(" ")}: ${node.failureSummary?.split("\n")[1] ?? ""}`,
    ),
  );
}
