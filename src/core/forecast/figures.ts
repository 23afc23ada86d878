import type { Forecast } from "./forecast";
import type { Gap } from "./gaps";

/** The figures of a forecast as files and the command give them: without what only pictures need. */
export type ForecastFigures = Omit<
  Forecast,
  "durations" | "curves" | "samples" | "means" | "openFor" | "gaps" | "problems"
> & {
  readonly gaps: readonly (Omit<Gap, "taken"> & { readonly taken: string })[];
  readonly problems: readonly string[];
};

export function figuresAlone({
  durations: _,
  curves: __,
  samples: ___,
  means: ____,
  openFor: _____,
  gaps,
  problems,
  ...figures
}: Forecast): ForecastFigures {
  return {
    ...figures,
    gaps: gaps.map(({ kind, element, name, taken }) => ({ kind, element, name, taken: taken.text })),
    problems: problems.map(({ text }) => text),
  };
}
