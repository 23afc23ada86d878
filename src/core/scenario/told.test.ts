import { expect, test } from "vitest";
import { bpmnWith, clerks, end, modelOf, number, of, start, task } from "../forecast/testing/models";
import { scenariosOf } from ".";

const group = (kind: string, name: string, values: string) =>
  `<bpsim:${kind}Parameters><bpsim:${name}>${values}</bpsim:${name}></bpsim:${kind}Parameters>`;
const uniform = '<bpsim:UniformDistribution min="1" max="3"/>';
const yes = '<bpsim:BooleanParameter value="true"/>';
const expression = (text: string) => `<bpsim:ExpressionParameter value="${text}"/>`;

// Names of parameters and distributions are those of "BPSim: Business Process Simulation Specification", 1.0, from memory.
test.each<[name: string, parameters: string, told: string[]]>([
  ["all is used", group("Time", "ProcessingTime", uniform) + group("Cost", "FixedCost", number(3)), []],
  ["results that are asked for", group("Time", "ElapsedTime", "<bpsim:ResultRequest>mean</bpsim:ResultRequest>"), []],
  [
    "a number that is spread",
    group("Resource", "Quantity", uniform),
    ["Quantity cannot be used: it has to be one number"],
  ],
  ["one person and a half", group("Resource", "Quantity", number(1.5)), ["a number of 1.5 counts as 1"]],
  ["less than nobody", group("Resource", "Quantity", number(-1)), ["a number of -1 counts as 0"]],
  [
    "a time below nothing",
    group("Time", "ProcessingTime", uniform.replace('"1"', '"-1"')),
    ["a time below 0 counts as 0"],
  ],
  ["no time at all", group("Time", "ProcessingTime", number(0)), []],
  [
    "a time around which it is spread",
    group("Time", "ProcessingTime", '<bpsim:NormalDistribution mean="1" standardDeviation="2"/>'),
    [],
  ],
  [
    "a share that is spread",
    group("Control", "Probability", uniform),
    ["Probability cannot be used: it has to be one number"],
  ],
  [
    "a share above one",
    group("Control", "Probability", number(2)),
    ["a probability of 2 cannot be; it is from 0 to 1"],
  ],
  ["a price that is spread", group("Cost", "UnitCost", uniform), ["UnitCost cannot be used: it has to be one number"]],
  ["a condition", group("Control", "Condition", expression("x")), ["Condition is not used in a forecast"]],
  ["work that may be put aside", group("Priority", "Interruptible", yes), ["Interruptible is not used in a forecast"]],
  ["work that may not", group("Priority", "Interruptible", yes.replace("true", "false")), []],
  ["times of a run that was", group("Time", "Duration", uniform), ["Duration is not used in a forecast"]],
  ["how long a queue was", group("Property", "QueueLength", number(4)), ["QueueLength is not used in a forecast"]],
  [
    "whom nobody can read",
    group("Resource", "Selection", expression("bpsim:getResource(")),
    ["the selection “bpsim:getResource(” cannot be read"],
  ],
  [
    "a value of no kind",
    group("Time", "ProcessingTime", expression("x")),
    ["ExpressionParameter is not used in a forecast"],
  ],
  [
    "a spread that is none",
    group("Time", "ProcessingTime", uniform.replace('"1"', '"9"')),
    ["UniformDistribution cannot be used: its lowest value is above its highest"],
  ],
])("of what a file says of a step it is told what cannot be used: %s", (_, parameters, told) => {
  const model = modelOf(bpmnWith(`${start}${task("a")}${end}`, of("a", parameters), "", clerks("desk")));
  expect(scenariosOf(model)[0]?.problems.map(({ text }) => text)).toEqual(told.map((one) => `a: ${one}.`));
});
