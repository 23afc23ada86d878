import { type Block, line } from "../booklet";
import type { ForecastFigures } from "../forecast";
import { type Said, say } from "../messages";
import { spanWords } from "../model";

/** What a forecast comes to, of one scenario. */
export interface ToldForecast {
  readonly scenario: string;
  /** None where it could not be run; then why. */
  readonly figures: ForecastFigures | null;
  readonly why: string;
}

/** The figures of a forecast, as a part of a handbook. */
export function figureBlocks({ scenario, figures, why }: ToldForecast, words: (said: Said) => string): Block[] {
  const intro: Block = { kind: "paragraph", says: line(words(say`Forecast of the scenario “${scenario}”.`)) };
  if (!figures) return [intro, { kind: "paragraph", says: line(why) }];
  const { cycleTime, waitingTime, cost, currency, resources, replications, seed } = figures;
  const money = `${Number(cost.mean.toPrecision(3))} ${currency}`;
  const said = (name: Said, value: string) => ({ name: words(name), says: line(value) });
  if (figures.cases === 0) return [intro, { kind: "paragraph", says: line(words(say`No case came to its end.`)) }];
  return [
    intro,
    {
      kind: "facts",
      facts: [
        said(say`9 of 10 cases are done within`, spanWords(cycleTime.p90)),
        said(say`Half of them within`, spanWords(cycleTime.p50)),
        said(say`A case takes on average`, spanWords(cycleTime.mean)),
        said(say`Of that it waits`, spanWords(waitingTime.mean)),
        said(say`A case costs on average`, money),
        said(say`Replications, seed`, `${replications}, ${seed}`),
      ],
    },
    ...(resources.length === 0
      ? []
      : [
          {
            kind: "table" as const,
            caption: words(say`Who is busy`),
            columns: [say`Role`, say`How many`, say`Busy`, say`Waited for, each time`].map((name, at) => ({
              name: words(name),
              share: at === 0 ? 3 : 1,
            })),
            rows: resources.map(({ name, quantity, utilization, waitingMean }) => [
              line(name),
              line(String(quantity)),
              line(`${Math.round(utilization * 100)} %`),
              line(spanWords(waitingMean)),
            ]),
          },
        ]),
  ];
}
