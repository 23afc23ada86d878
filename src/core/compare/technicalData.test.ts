import { expect, test } from "vitest";
import { readBpmn } from "../bpmn";
import { expectOk } from "../testing/models";
import { compareModels, technicalLines } from ".";

const file = (attributes: string, inside: string) =>
  expectOk(
    readBpmn(
      `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" xmlns:rig="urn:rig" id="d" targetNamespace="t"><process id="p"><task id="a" name="A" ${attributes}><extensionElements>${inside}</extensionElements></task></process></definitions>`,
    ),
  );

test("what developers added is told as a tree, each line as deep as it stands", () => {
  const before = file("", "");
  const after = file(
    'rig:queue="desk"',
    '<rig:topic>meters</rig:topic><rig:retry times="3"><rig:wait unit="s">5</rig:wait><!-- no --></rig:retry>',
  );
  const [change] = compareModels(before, after).changes;
  const field = change?.fields.find((one) => one.field === "extension");
  expect(technicalLines(field?.to ?? "").map(({ depth, words }) => `${"-".repeat(depth)}${words}`)).toEqual([
    "rig:queue = desk",
    "rig:topic: meters",
    "rig:retry",
    "-times = 3",
    "-rig:wait",
    "--unit = s",
    "--5",
  ]);
  expect(technicalLines(field?.from ?? "")).toEqual([]);
});
