import type { Id, Model } from "@/core/model";
import { constant, type Distribution, type ParameterName, readSaid } from "@/core/scenario";
import { Drawing } from "./drawing";

const said = (text: string): Distribution => {
  const read = readSaid(text, "time");
  if (!read) throw new Error(`Demo: "${text}" is no time.`);
  return read;
};

/** What working on a rooftop plant takes, as the people who do it say. */
const works: readonly (readonly [step: Id, time: string])[] = [
  ["register", "usually 12 min, 9 of 10 within 25 min"],
  ["request-papers", "10 to 20 min"],
  ["check-documents", "usually 25 min, 9 of 10 within 50 min"],
  ["check-capacity", "usually 80 min, 9 of 10 within 3 h"],
  ["approve", "30, usually 45, at most 90 min"],
  ["reject", "15 to 30 min"],
  ["change-meter", "40, usually 60, at most 90 min"],
  ["upgrade-fuse", "60, usually 90, at most 150 min"],
  ["book-visit", "usually 12 min, 9 of 10 within 30 min"],
  ["check-wiring", "45, usually 60, at most 120 min"],
  ["note-defects", "10 to 20 min"],
  ["switch-on", "30, usually 40, at most 70 min"],
  ["set-tariff", "2 min"],
];
const shares: readonly (readonly [flow: Id, share: number])[] = [
  ["complete-to-request-papers", 0.3],
  ["capacity-to-reject", 0.08],
  ["needed-to-site-ready", 0],
  ["needed-to-change-meter", 0.6],
  ["needed-to-upgrade-fuse", 0.25],
  ["wiring-safe-to-note-defects", 0.1],
];

/** A normal year and a spring in which many plants are sold, on the same figures. Whoever is in the directory works as it says there. */
export function assumeConnection(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  const normal = "estimates";
  const assume = (element: Id, parameter: ParameterName, value: Distribution, scenario: Id = normal) =>
    draw.do({ type: "setAssumption", scenario, element, parameter, value });
  for (const [step, time] of works) assume(step, "processing", said(time));
  for (const [flow, share] of shares) assume(flow, "probability", constant(share));
  assume("application-received", "interval", said("3.7 a day"));
  assume("await-papers", "wait", said("usually 5 days, 9 of 10 within 16 days"));
  draw.do({
    type: "setScenario",
    id: normal,
    words: {
      name: "Normal year",
      start: "2027-03-01T08:00:00",
      duration: 12 * 7 * 86_400,
      warmUp: 3 * 7 * 86_400,
      replications: 10,
      seed: 1,
    },
  });
  draw.do({ type: "addScenario", id: "spring-rush", name: "Spring rush", inherits: normal });
  assume("application-received", "interval", said("4.5 a day"), "spring-rush");
  return draw;
}

/** What the steps of the to-be take that the as-is does not have: two of them nobody works on. */
export function assumeImproved(start: Model, diagram: Id): Drawing {
  const draw = new Drawing(start, diagram);
  for (const step of ["offer-days", "tell-billing"])
    draw.do({
      type: "setAssumption",
      scenario: "estimates",
      element: step,
      parameter: "processing",
      value: said("1 min"),
    });
  // Nothing is copied from the map into the register, and the drawing comes with figures that are right.
  for (const [step, time] of [
    ["check-capacity", "usually 35 min, 9 of 10 within 70 min"],
    ["approve", "20, usually 30, at most 60 min"],
  ] as const)
    draw.do({
      type: "setAssumption",
      scenario: "estimates",
      element: step,
      parameter: "processing",
      value: said(time),
    });
  return draw;
}
