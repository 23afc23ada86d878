import { type Said, say } from "../messages";
import type { XmlElement } from "../model";
import { simulationNamespace } from "./bpsim";
import { type DrawnValue, faultOfSpread, type Spread } from "./drawnData";
import { readDistribution } from "./readDistribution";

const localName = ({ name }: XmlElement) => name.slice(name.indexOf(":") + 1);
const attributeOf = (element: XmlElement, name: string) => element.attributes.find(([key]) => key === name)?.[1];
const inside = (element: XmlElement): XmlElement[] =>
  element.children.flatMap((child) =>
    "element" in child && child.element.uri === simulationNamespace ? [child.element] : [],
  );

/** Dates and lengths of time are data in the words of ISO 8601. */
const wordForms = new Set(["StringParameter", "DurationParameter", "DateTimeParameter"]);
const numberForms = new Set(["NumericParameter", "FloatingParameter", "IntegerParameter"]);

function drawnValueOf(element: XmlElement): DrawnValue | undefined {
  const name = localName(element);
  const text = attributeOf(element, "value");
  if (text === undefined) return undefined;
  if (wordForms.has(name)) return text;
  if (name === "BooleanParameter") return text.trim() === "true" || text.trim() === "1";
  const number = numberForms.has(name) && text.trim() !== "" ? Number(text) : Number.NaN;
  return Number.isFinite(number) ? number : undefined;
}

/**
 * What a property of a process is: one value, values with their shares (a discrete user distribution; an enumeration has each as often
 * as the others), or a spread number (BPSim 1.0, 7.4, from memory).
 * @param tell hears why a value that is there cannot be used
 */
export function readDrawn(element: XmlElement, tell: (problem: Said) => void): Spread | undefined {
  const one = drawnValueOf(element);
  if (one !== undefined) return { kind: "values", points: [{ share: 1, value: one }] };
  const name = localName(element);
  const isShared = name === "UserDistribution" && attributeOf(element, "discrete") !== "false";
  if (!isShared && name !== "EnumParameter") return readDistribution(element, { base: undefined }, tell);
  const points = inside(element).flatMap((point) => {
    const [inner] = name === "EnumParameter" ? [point] : inside(point);
    const value = inner && drawnValueOf(inner);
    const share = name === "EnumParameter" ? 1 : Number(attributeOf(point, "probability") ?? Number.NaN);
    return value === undefined || Number.isNaN(share) ? [] : [{ share, value }];
  });
  const spread: Spread = { kind: "values", points };
  const fault = faultOfSpread(spread);
  if (fault) tell(say`${name} cannot be used: ${fault}`);
  return fault ? undefined : spread;
}
