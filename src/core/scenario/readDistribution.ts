import { type Said, say } from "../messages";
import { isoSeconds, type XmlElement } from "../model";
import { simulationNamespace } from "./bpsim";
import { type Distribution, faultOf, type Point } from "./distributions";

/** What a number without a unit is counted in: seconds a unit for times; nothing for what is no time. */
export interface Units {
  readonly base: number | undefined;
}

const seconds: { readonly [unit: string]: number } = {
  ms: 0.001,
  s: 1,
  min: 60,
  hour: 3600,
  day: 86_400,
  // As the standard's other places count it where no calendar is meant.
  year: 365 * 86_400,
};
/** The standard's units of time; undefined for another word. */
export const unitSeconds = (unit: string): number | undefined => seconds[unit.trim()];

/**
 * A value of a parameter: a constant, or a distribution with its parameters in the standard's names (BPSim 1.0, 7.3; from memory).
 * @param units what numbers are counted in; a value's own `timeUnit` goes before it
 * @param tell hears why a value that is there cannot be used
 */
export function readDistribution(
  value: XmlElement,
  units: Units,
  tell: (problem: Said) => void = () => undefined,
): Distribution | undefined {
  const name = value.name.slice(value.name.indexOf(":") + 1);
  const attribute = (key: string) => value.attributes.find(([one]) => one === key)?.[1];
  const own = attribute("timeUnit");
  const unit = units.base === undefined ? 1 : ((own === undefined ? undefined : unitSeconds(own)) ?? units.base);
  const number = (...keys: readonly string[]): number => {
    const text = keys.map(attribute).find((one) => one !== undefined);
    return text === undefined || text.trim() === "" ? Number.NaN : Number(text);
  };
  const time = (...keys: readonly string[]) => number(...keys) * unit;
  const made = ((): Distribution | undefined => {
    switch (name) {
      case "NumericParameter":
      case "FloatingParameter":
      case "IntegerParameter":
        return { kind: "constant", value: time("value") };
      case "StringParameter":
      case "DurationParameter": {
        const text = attribute("value") ?? "";
        return { kind: "constant", value: isoSeconds(text) ?? (text.trim() === "" ? Number.NaN : Number(text) * unit) };
      }
      case "UniformDistribution":
        return { kind: "uniform", min: time("min"), max: time("max") };
      case "TriangularDistribution":
        return { kind: "triangular", min: time("min"), mode: time("mode", "mostLikely"), max: time("max") };
      case "NormalDistribution":
      case "TruncatedNormalDistribution": {
        const [min, max] = [time("min"), time("max")];
        return {
          kind: "normal",
          mean: time("mean"),
          deviation: time("standardDeviation"),
          min: Number.isNaN(min) ? 0 : min,
          ...(!Number.isNaN(max) && { max }),
        };
      }
      case "LogNormalDistribution":
        return { kind: "logNormal", mean: time("mean"), deviation: time("standardDeviation") };
      case "NegativeExponentialDistribution":
      case "ExponentialDistribution":
        return { kind: "exponential", mean: time("mean") };
      case "ErlangDistribution":
        return { kind: "erlang", k: number("k"), mean: time("mean") };
      case "GammaDistribution":
        return { kind: "gamma", shape: number("shape"), scale: time("scale") };
      case "WeibullDistribution":
        return { kind: "weibull", shape: number("shape"), scale: time("scale") };
      case "BetaDistribution": {
        const [min, max] = [time("min"), time("max")];
        return {
          kind: "beta",
          alpha: number("shape", "alpha"),
          beta: number("scale", "beta"),
          min: Number.isNaN(min) ? 0 : min,
          max: Number.isNaN(max) ? unit : max,
        };
      }
      case "PoissonDistribution":
        return { kind: "poisson", mean: number("mean"), unit };
      case "BinomialDistribution":
        return { kind: "binomial", trials: number("trials"), probability: number("probability"), unit };
      case "UserDistribution":
        return {
          kind: attribute("discrete") === "false" ? "continuous" : "discrete",
          points: pointsOf(value, units),
        };
      default:
        tell(say`${name} is not used in a forecast`);
        return undefined;
    }
  })();
  const fault = made && faultOf(made);
  if (fault) tell(say`${name} cannot be used: ${fault}`);
  return fault ? undefined : made;
}

function pointsOf(user: XmlElement, units: Units): Point[] {
  return user.children.flatMap((child): Point[] => {
    if (!("element" in child) || child.element.uri !== simulationNamespace) return [];
    const share = Number(child.element.attributes.find(([key]) => key === "probability")?.[1] ?? Number.NaN);
    const [inner] = child.element.children.flatMap((one) => ("element" in one ? [one.element] : []));
    const value = inner && readDistribution(inner, units);
    return value?.kind === "constant" && !Number.isNaN(share) ? [{ share, value: value.value }] : [];
  });
}
