import { anchorOf, type Block, type Booklet, type Fact, type Line, line } from "../booklet";
import { drawMissingPages } from "../commands";
import { sceneOf, withBadges } from "../drawing";
import { inLanguage, type Said, type Sentences, say } from "../messages";
import { type Element, type Id, type Model, nameOf, pageName, spanWords } from "../model";
import { type Difference, differenceKey, differencesOf } from "./differences";
import { filterSentence, type LogFilter, spanOf } from "./filters";
import type { Held } from "./holding";
import type { Judgement } from "./kept";
import type { EventLog } from "./logs/eventLog";
import { overviewOf, type Spread, spreadOf } from "./overview";

/** A difference that somebody said stays, and what it is. */
export interface ReportedJudgement {
  readonly key: string;
  readonly as: Judgement;
  readonly note: string;
  readonly member: string;
  /** ISO 8601. */
  readonly at: string;
}

export interface EvidenceReport {
  readonly model: Model;
  readonly title: string;
  /** Of which version, and which of its states. */
  readonly subtitle: string;
  readonly log: string;
  /** The part of the log that is looked at, and which sentences narrowed it down. */
  readonly part: EventLog;
  readonly filters: readonly LogFilter[];
  readonly held: Held;
  readonly judged: readonly ReportedJudgement[];
  readonly sentences: Sentences;
  readonly language: string;
  readonly hueOf?: (lane: Element) => string | undefined;
}

/** So many of each are told, the commonest first. */
const mostDifferences = 100;
const mostRows = 30;
/** So many cases are named as examples. */
const mostExamples = 3;

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const figure = (value: number) => value.toFixed(3);
const span = (milliseconds: number | undefined) =>
  milliseconds === undefined || Number.isNaN(milliseconds) ? "" : spanWords(milliseconds / 1_000);
const day = (at: number) => new Date(at).toISOString().slice(0, 10);

/**
 * What a log says of a model, to be read and filed: what was looked at, how well it fits, what differs in sentences with where it is on
 * the diagram, what was decided of it, and what happened. O(traces + moves).
 */
export function evidenceReport(report: EvidenceReport): Booklet {
  const teller = new Teller(report);
  return {
    title: report.title,
    subtitle: report.subtitle,
    language: report.language,
    facts: teller.lookedAt(),
    contents: teller.words(say`Contents`),
    blocks: [
      ...teller.part("fit", say`How well it fits`, teller.fit()),
      ...teller.part("differences", say`What differs`, teller.differences()),
      ...teller.part("where", say`Where it differs`, teller.pictures()),
      ...teller.part("decided", say`What was decided`, teller.decided()),
      ...teller.part("activities", say`What was done`, teller.activities()),
      ...teller.part("ways", say`Ways that cases went`, teller.ways()),
    ],
  };
}

class Teller {
  private readonly all: readonly Difference[];
  private readonly durations: readonly number[];

  constructor(private readonly report: EvidenceReport) {
    this.all = differencesOf(report.held);
    this.durations = report.part.cases.map((_, trace) => {
      const [from, until] = spanOf(report.part, trace);
      return until - from;
    });
  }

  readonly words = (said: Said): string => inLanguage(said, this.report.sentences);

  part(id: string, name: Said, blocks: readonly Block[]): Block[] {
    if (blocks.length === 0) return [];
    return [{ kind: "heading", level: 1, text: this.words(name), anchor: anchorOf("part", id) }, ...blocks];
  }

  private fact = (name: Said, says: string): Fact[] =>
    says === "" ? [] : [{ name: this.words(name), says: line(says) }];

  lookedAt(): Fact[] {
    const { part, filters, log } = this.report;
    const { events, first, last } = overviewOf(part);
    const timeWords = { moment: day, duration: span };
    const narrowed = filters.map((filter) => this.words(filterSentence(filter, timeWords))).join("; ");
    return [
      ...this.fact(say`Log`, log),
      ...this.fact(say`Cases`, String(part.cases.length)),
      ...this.fact(say`Events`, String(events)),
      ...this.fact(say`From`, Number.isFinite(first) ? day(first) : ""),
      ...this.fact(say`To`, Number.isFinite(last) ? day(last) : ""),
      ...this.fact(say`Only cases that`, narrowed),
      ...this.fact(say`Left out, as not to be used`, part.leftOut > 0 ? String(part.leftOut) : ""),
      ...this.fact(say`Corrected by hand`, part.corrected > 0 ? String(part.corrected) : ""),
    ];
  }

  fit(): Block[] {
    const { held } = this.report;
    const { fitting, traces, fitness, closeness, variants, isCut } = held;
    const share = traces === 0 ? 0 : fitting / traces;
    const blocks: Block[] = [
      {
        kind: "paragraph",
        says: line(
          this.words(
            say`${fitting} of ${traces} cases (${percent(share)}) went as the model has it, in ${variants.length} ways.`,
          ),
        ),
      },
      {
        kind: "facts",
        facts: [
          ...this.fact(say`Fitness`, figure(fitness)),
          ...this.fact(say`Precision`, figure(closeness.precision)),
          ...this.fact(say`Generalisation`, figure(closeness.generalisation)),
        ],
      },
      {
        kind: "paragraph",
        says: line(
          this.words(
            say`Fitness is 1 where all that happened can happen in the model. Precision is low where the model allows much that never happens. Generalisation is low where there are few cases, and the next may be different.`,
          ),
        ),
      },
    ];
    if (isCut)
      blocks.push({
        kind: "paragraph",
        says: line(this.words(say`A bound was met: some cases may differ less than is told here.`)),
      });
    return blocks;
  }

  differences(): Block[] {
    const judged = new Map(this.report.judged.map((one) => [one.key, one]));
    if (this.all.length === 0) return [{ kind: "paragraph", says: line(this.words(say`Nothing differs.`)) }];
    const told = this.all.slice(0, mostDifferences);
    const rows = told.map((difference, at): Line[] => {
      const { statement, traces, share } = difference;
      const own = new Set(traces);
      const as = judged.get(differenceKey(difference))?.as;
      const examples = traces.slice(0, mostExamples).map((trace) => this.report.part.cases[trace] as string);
      return [
        line(String(at + 1)),
        line(this.words(statement)),
        line(`${traces.length} (${percent(share)})`),
        line([span(this.median(own, true)), span(this.median(own, false))].filter(Boolean).join(" / ")),
        line(examples.join(", ")),
        line(as === undefined ? "" : this.words(judgementWords[as])),
      ];
    });
    const left = this.all.length - told.length;
    return [
      {
        kind: "table",
        caption: this.words(say`Differences, the commonest first; half of the cases with and without it took at most`),
        columns: [
          { name: "", share: 0.5 },
          { name: this.words(say`What differs`), share: 4 },
          { name: this.words(say`Cases`), share: 1.3 },
          { name: this.words(say`Took, with / without`), share: 1.6 },
          { name: this.words(say`For example`), share: 1.6 },
          { name: this.words(say`Decided`), share: 1.3 },
        ],
        rows,
      },
      ...(left > 0
        ? [{ kind: "paragraph" as const, says: line(this.words(say`${left} more differ in fewer cases.`)) }]
        : []),
    ];
  }

  /** What half of some cases took at most, in milliseconds; undefined where no times are told. */
  private median(traces: ReadonlySet<number>, isIn: boolean): number | undefined {
    const took = this.durations.filter((time, trace) => traces.has(trace) === isIn && !Number.isNaN(time));
    return took.length === 0 ? undefined : spreadOf(took).median;
  }

  /** The pages on which something differs, each element with the numbers of what differs there. */
  pictures(): Block[] {
    const model = drawMissingPages(this.report.model);
    const numbers = new Map<Id, number[]>();
    for (const [at, { elements, behind }] of this.all.slice(0, mostDifferences).entries())
      for (const id of elements.length > 0 ? elements : behind === undefined ? [] : [behind])
        numbers.set(id, [...(numbers.get(id) ?? []), at + 1]);
    const badges = new Map([...numbers].map(([id, own]) => [id, shortened(own)]));
    const pages = [...model.diagrams].sort((a, b) => a.order - b.order);
    return pages.flatMap((page): Block[] => {
      const { hueOf } = this.report;
      const scene = sceneOf(model, page, hueOf ? { hueOf } : {});
      if (!scene.figures.some(({ id }) => badges.has(id))) return [];
      const caption = this.words(say`${pageName(model, page)}: the numbers are those of the differences`);
      return [{ kind: "picture", caption, shows: caption, scene: withBadges(scene, badges) }];
    });
  }

  decided(): Block[] {
    const { judged } = this.report;
    const statements = new Map(this.all.map((one) => [differenceKey(one), this.words(one.statement)]));
    if (judged.length === 0) return [];
    return [
      {
        kind: "table",
        caption: this.words(say`Differences that are to stay: they are no part of the model`),
        columns: [
          { name: this.words(say`What differs`), share: 4 },
          { name: this.words(say`Decided`), share: 1.3 },
          { name: this.words(say`Note`), share: 3 },
          { name: this.words(say`By`), share: 1.6 },
        ],
        rows: judged.map(({ key, as, note, member, at }): Line[] => [
          line(statements.get(key) ?? this.words(say`A difference that these cases do not show`)),
          line(this.words(judgementWords[as])),
          line(note),
          line([member, at.slice(0, 10)].filter(Boolean).join(", ")),
        ]),
      },
    ];
  }

  activities(): Block[] {
    const { held, part } = this.report;
    const { activities, durations } = overviewOf(part);
    if (activities.length === 0) return [];
    const took = (spread: Spread) => (spread.count === 0 ? "" : span(spread.median));
    const modelOf = (name: string) =>
      (held.meant.get(name) ?? [])
        .map((step) => nameOf(this.report.model, step) || step)
        .filter((step, at, all) => all.indexOf(step) === at)
        .join(", ");
    return [
      ...(durations.count > 0
        ? [
            {
              kind: "paragraph" as const,
              says: line(
                this.words(
                  say`Half of the cases took ${span(durations.median)} at most, nine of ten ${span(durations.ninth)}.`,
                ),
              ),
            },
          ]
        : []),
      {
        kind: "table",
        caption: this.words(say`Activities, the commonest first; half of them took and waited at most`),
        columns: [say`Activity`, say`Step of the model`, say`Times`, say`Cases`, say`Took`, say`Waited`].map(
          (name, at) => ({ name: this.words(name), share: at < 2 ? 3 : 1.2 }),
        ),
        rows: activities
          .slice(0, mostRows)
          .map(({ name, times, traces, working, waiting }): Line[] => [
            line(name),
            line(modelOf(name) || this.words(say`not in the model`)),
            line(String(times)),
            line(String(traces)),
            line(took(working)),
            line(took(waiting)),
          ]),
      },
    ];
  }

  ways(): Block[] {
    const { part, held } = this.report;
    const { variants, variantCount } = overviewOf(part);
    if (variants.length === 0) return [];
    const fits = new Map(
      held.variants.map(({ activities, alignment }) => [activities.join("\n"), alignment.cost === 0]),
    );
    const told = variants.slice(0, mostRows);
    return [
      {
        kind: "table",
        caption: this.words(say`${told.length} of ${variantCount} ways, the commonest first`),
        columns: [
          { name: this.words(say`Cases`), share: 1 },
          { name: this.words(say`Half took at most`), share: 1.2 },
          { name: this.words(say`As modelled`), share: 1 },
          { name: this.words(say`Way`), share: 6 },
        ],
        rows: told.map(({ activities, traces, median }): Line[] => [
          line(`${traces} (${percent(traces / Math.max(1, part.cases.length))})`),
          line(span(median)),
          line(this.words(fits.get(activities.join("\n")) ? say`yes` : say`no`)),
          line(activities.join(" · ")),
        ]),
      },
    ];
  }
}

const judgementWords: { readonly [As in Judgement]: Said } = {
  exception: say`exception`,
  misconduct: say`misconduct`,
};

/** "1, 3, 4", or of many the first ones. */
const shortened = (numbers: readonly number[]) =>
  numbers.length > 4 ? `${numbers.slice(0, 3).join(", ")} …` : numbers.join(", ");
