import { describe, expect, test } from "vitest";
import { documentsIn } from "./documents";
import { markedText } from "./markedText";

const told = (text: string) => documentsIn(markedText(text)).map(({ name, parts }) => [name, ...parts]);

describe("documents of a description", () => {
  test.each<[string, string, string[][]]>([
    ["none", "The crew [activity: inspects the plant].", []],
    ["one by itself", "She scans the [document: connection application].", [["Connection application"]]],
    [
      "with a list behind it",
      "A household sends an [document: application] with the address, the rated power and the roof.",
      [["Application", "address", "rated power", "roof"]],
    ],
    [
      "in brackets",
      "The crew leaves a [document: visit report] (day, defects, name of the installer) at the plant.",
      [["Visit report", "day", "defects", "name of the installer"]],
    ],
    [
      "which says",
      "Billing sends a [document: notice] that states the tariff and its first day to the household.",
      [["Notice", "tariff", "first day"]],
    ],
    [
      "named twice, described once",
      "The desk registers the [document: application]. The [document: application] lists the papers and the fuse.",
      [["Application", "papers", "fuse"]],
    ],
    ["no list", "The [document: drawing] is compared with the map.", [["Drawing"]]],
  ])("%s", (_, text, expected) => {
    expect(told(text)).toEqual(expected);
  });

  test("all marks of one document are kept, and the sentence that says most", () => {
    const [one] = documentsIn(
      markedText("They file the [document#a: application]. The [document#b: application] shows the roof."),
    );
    expect(one?.marks).toEqual(["a", "b"]);
    expect(one?.sentence).toContain("shows the roof");
  });
});
