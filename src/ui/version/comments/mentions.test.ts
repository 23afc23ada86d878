import { describe, expect, test } from "vitest";
import { fitting, mentionedIn, nameBegun, withMention } from "./mentions";

const members = ["Mara Aldous", "Oran Veltri", "Ora Vale", "Jo", "Jo-Ann Pell"].map((name) => ({
  id: name.toLowerCase().replace(/\W/g, ""),
  name,
  roles: [],
}));

describe("mentions", () => {
  test.each<[text: string, begun: string | undefined]>([
    ["@", ""],
    ["See @Or", "Or"],
    ["See @Oran V", "Oran V"],
    ["a@b", undefined],
    ["See Oran", undefined],
    ["@Oran Veltri has", undefined],
    ["line\n@Ma", "Ma"],
  ])("%j: the name that is begun is %j", (text, begun) => {
    expect(nameBegun(text, text.length)).toBe(begun);
  });

  test("a name is found by its beginning or that of one of its parts", () => {
    expect(fitting(members, "or").map(({ name }) => name)).toEqual(["Oran Veltri", "Ora Vale"]);
    expect(fitting(members, "v").map(({ name }) => name)).toEqual(["Oran Veltri", "Ora Vale"]);
    expect(fitting(members, "zz")).toEqual([]);
    expect(fitting(members, "")).toHaveLength(5);
  });

  test("a name is put where it was begun, and the caret behind it", () => {
    expect(withMention("See @Or please", 7, "Or", "Oran Veltri")).toEqual(["See @Oran Veltri please", 17]);
  });

  test("who is mentioned: whole names, of two that begin alike the longer", () => {
    expect(mentionedIn("@Oran Veltri and @Mara Aldous, look", members)).toEqual(
      expect.arrayContaining(["oranveltri", "maraaldous"]),
    );
    expect(mentionedIn("@Jo-Ann Pell", members)).toEqual(["joannpell"]);
    expect(mentionedIn("@Jo: yes", members)).toEqual(["jo"]);
    expect(mentionedIn("@Joanna, Oran Veltri", members)).toEqual([]);
  });
});
