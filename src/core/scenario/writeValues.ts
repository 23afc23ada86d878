import type { XmlElement, XmlNode } from "../model";
import { simulationNamespace } from "./bpsim";
import type { Distribution } from "./distributions";
import type { DrawnValue, Spread } from "./drawnData";
import { type ParameterName, type ParameterValue, parameters } from "./parameters";

/** An element of the standard's form. */
export const make = (
  name: string,
  attributes: { readonly [name: string]: string | number | undefined } = {},
  children: readonly XmlNode[] = [],
): XmlElement => ({
  name: `bpsim:${name}`,
  uri: simulationNamespace,
  attributes: Object.entries(attributes).flatMap(([key, value]) =>
    value === undefined ? [] : [[key, String(value)] as const],
  ),
  children,
});

/** A value in the standard's form: times in ISO 8601 where they are constant, else in minutes. */
export function valueElement(parameter: ParameterName, value: ParameterValue): XmlElement {
  const { as } = parameters[parameter];
  if (typeof value === "string" && as === "text") return make("StringParameter", { value });
  if (typeof value === "string")
    return as === "calendar"
      ? make("BooleanParameter", { value: "true", validFor: value })
      : make("ExpressionParameter", { value });
  if (as === "rate" && value.kind === "constant")
    return make("FloatingParameter", { value: plain(value.value), timeUnit: "hour" });
  return distributionElement(value, as === "time");
}

const plain = (value: number) => Number(value.toPrecision(12));

/** A distribution as an element; numbers of times in minutes. */
export function distributionElement(one: Distribution, isTime: boolean): XmlElement {
  const unit = isTime ? 60 : 1;
  const number = (value: number | undefined) => (value === undefined ? undefined : plain(value / unit));
  const timed = (name: string, attributes: { readonly [name: string]: number | undefined }) =>
    make(name, { ...(isTime && { timeUnit: "min" }), ...attributes });
  switch (one.kind) {
    case "constant":
      return isTime
        ? make("DurationParameter", { value: isoOf(one.value) })
        : make("FloatingParameter", { value: plain(one.value) });
    case "uniform":
      return timed("UniformDistribution", { min: number(one.min), max: number(one.max) });
    case "triangular":
      return timed("TriangularDistribution", { min: number(one.min), mode: number(one.mode), max: number(one.max) });
    case "normal":
      return one.min === 0 && one.max === undefined
        ? timed("NormalDistribution", { mean: number(one.mean), standardDeviation: number(one.deviation) })
        : timed("TruncatedNormalDistribution", {
            mean: number(one.mean),
            standardDeviation: number(one.deviation),
            min: number(one.min),
            max: number(one.max),
          });
    case "logNormal":
      return timed("LogNormalDistribution", { mean: number(one.mean), standardDeviation: number(one.deviation) });
    case "exponential":
      return timed("NegativeExponentialDistribution", { mean: number(one.mean) });
    case "erlang":
      return timed("ErlangDistribution", { k: one.k, mean: number(one.mean) });
    case "gamma":
      return timed("GammaDistribution", { shape: one.shape, scale: number(one.scale) });
    case "weibull":
      return timed("WeibullDistribution", { shape: one.shape, scale: number(one.scale) });
    case "beta":
      return timed("BetaDistribution", {
        shape: one.alpha,
        scale: one.beta,
        min: number(one.min),
        max: number(one.max),
      });
    case "poisson":
      return make("PoissonDistribution", { mean: one.mean, ...(isTime && { timeUnit: "min" }) });
    case "binomial":
      return make("BinomialDistribution", {
        trials: one.trials,
        probability: one.probability,
        ...(isTime && { timeUnit: "min" }),
      });
    case "discrete":
    case "continuous":
      return {
        ...make("UserDistribution", { discrete: one.kind === "discrete" ? "true" : "false" }),
        children: one.points.map(({ share, value }) => ({
          element: make("UserDistributionDataPoint", { probability: share }, [
            { element: distributionElement({ kind: "constant", value }, isTime) },
          ]),
        })),
      };
  }
}

/** Data that is drawn, as a value of a property: several values with their shares, one of them, or a spread number. */
export function spreadElement(spread: Spread): XmlElement {
  if (spread.kind !== "values") return distributionElement(spread, false);
  const [first] = spread.points;
  if (first && spread.points.length === 1) return drawnElement(first.value);
  return {
    ...make("UserDistribution", { discrete: "true" }),
    children: spread.points.map(({ share, value }) => ({
      element: make("UserDistributionDataPoint", { probability: plain(share) }, [{ element: drawnElement(value) }]),
    })),
  };
}

function drawnElement(value: DrawnValue): XmlElement {
  if (typeof value === "number") return make("FloatingParameter", { value: plain(value) });
  if (typeof value === "boolean") return make("BooleanParameter", { value: String(value) });
  return make("StringParameter", { value });
}

/** Seconds as an ISO 8601 duration, in the largest units that are whole. */
export function isoOf(seconds: number): string {
  if (seconds === 0) return "PT0S";
  let left = seconds;
  let [date, time] = ["", ""];
  for (const [size, letter] of [
    [86_400, "D"],
    [3600, "H"],
    [60, "M"],
  ] as const) {
    const count = Math.floor(left / size + 1e-12);
    if (count === 0) continue;
    if (letter === "D") date += `${count}D`;
    else time += `${count}${letter}`;
    left -= count * size;
  }
  const rest = plain(left);
  if (rest > 1e-9) time += `${rest}S`;
  return `P${date}${time === "" ? "" : `T${time}`}`;
}
