import { rolesOf } from "../../src/core/directory";
import { type Element, systemsOf } from "../../src/core/model";
import { performAll, smallModel } from "../../src/core/testing/models";
import { importSmall, openDiagram, saved, stored } from "./storedModel";
import { expect, test } from "./test";

test("people and systems are given to steps in a matrix by keyboard; hand-overs are counted and shown", async ({
  page,
}) => {
  const model = performAll(
    smallModel(),
    { type: "tieLane", lane: "desk", role: { entry: "role-front-desk", name: "Front desk" } },
    { type: "tieLane", lane: "engineer", role: { entry: "role-engineer", name: "Network engineer" } },
    { type: "moveToLane", diagram: "page", ids: ["approve"], lane: "engineer" },
  );
  const version = await importSmall(page, "Matrix", model);
  await openDiagram(page, version);
  await page.getByRole("button", { name: "Matrix" }).click();
  const matrix = page.getByTestId("matrix");
  await matrix.getByRole("gridcell", { name: /^Check application, Front desk/ }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(matrix.getByRole("gridcell", { name: "Check application, Network engineer: none" })).toBeFocused();
  await page.keyboard.press("c");
  await page.keyboard.press("i");
  await expect(matrix.getByRole("gridcell", { name: "Check application, Network engineer: C I" })).toBeFocused();
  await page.keyboard.press("i");
  await saved(page);

  await matrix.getByRole("tab", { name: "Steps × systems" }).click();
  await matrix.getByRole("button", { name: "another system" }).click();
  await page.getByRole("option", { name: /Case register/ }).click();
  await matrix.getByRole("gridcell", { name: /^Approve design, Case register/ }).focus();
  await page.keyboard.press("w");
  await saved(page);

  const now = await stored(page, version);
  expect(
    rolesOf(now, "check")
      .filter((role) => role.from === "step")
      .map((role) => [role.name, role.part]),
  ).toEqual([["Network engineer", "consulted"]]);
  expect(systemsOf(now.elements.get("approve") as Element)).toMatchObject([{ name: "Case register", use: "writes" }]);

  await matrix.getByRole("tab", { name: "Hand-overs between roles" }).click();
  await matrix.getByRole("button", { name: "1 from Front desk to Network engineer" }).click();
  await expect(matrix).toHaveCount(0);
  // The two steps and the two flows through the gateway.
  await expect(page.getByText("4 elements").first()).toBeVisible();
});
