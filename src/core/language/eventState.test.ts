import { describe, expect, test } from "vitest";
import { perform } from "../commands";
import { expectOk, smallModel } from "../testing/models";
import { languageRules } from ".";

const isFound = (name: string) => {
  const model = smallModel();
  const end = [...model.elements].find((element) => element.type === "endEvent")?.id ?? "";
  const named = expectOk(perform(model, { type: "rename", id: end, name })).model;
  return languageRules.some((rule) => rule.find(named).some(({ elements }) => elements.includes(end)));
};

/** Common practice for names of events. */
describe("an event is named by what has happened", () => {
  test.each(["Receive application", "Close the case", "Verify the plant", "Notify household"])("not: %s", (name) => {
    expect(isFound(name)).toBe(true);
  });
  test.each([
    "Application received",
    "Plant ready to switch on",
    "Plant inspected",
    "Meter exchange due",
    "10 working days",
    "Every night at 2:00",
    "Complaint closed",
    "Crew on site",
    "Done",
  ])("rightly: %s", (name) => {
    expect(isFound(name)).toBe(false);
  });
});
