import { type BookletFont, type BookletKind, line } from "@/core/booklet";
import { changeGroups, compareModels } from "@/core/compare";
import { type DecisionFileText, openDocument } from "@/core/decisions";
import type { DirectoryEntry } from "@/core/directory";
import type { RoleDefaults } from "@/core/forecast";
import {
  changeBlocks,
  commentBlocks,
  figureBlocks,
  type HandbookModel,
  type HandbookPart,
  handbookOf,
  languageToTell,
  sentencesIn,
  type ToldThread,
} from "@/core/handbook";
import type { SeenLens } from "@/core/lens";
import { inLanguage, type Said } from "@/core/messages";
import type { Id } from "@/core/model";
import { bookletFile } from "./booklets";
import { type Hues, hueIn } from "./files";
import { reportedForecast } from "./forecasts";
import { type Job, needs } from "./job";
import { type LensedInput, lensed } from "./lenses";
import { paintedLogo } from "./pictures/logo";
import { type FileMade, orTooLarge } from "./tooLarge";

export interface HandbookInput {
  readonly title: string;
  readonly subtitle: string;
  /** The models it tells of, by their names among the models of the job, each with what is said below its heading. */
  readonly models: readonly {
    readonly name: string;
    readonly facts: readonly { readonly name: Said; readonly text: string }[];
    readonly hues: Hues;
    readonly threads: readonly ToldThread[];
    /** The state that was approved last, by its name among the models of the job; null where none was. */
    readonly approved: { readonly name: string; readonly revision: number } | null;
    /** What lenses are to find out about it, where some are laid over its diagrams. */
    readonly lensed?: LensedInput;
  }[];
  readonly entries: readonly DirectoryEntry[];
  readonly decisions: readonly DecisionFileText[];
  /** What the directory says of roles, for figures. */
  readonly roles: readonly RoleDefaults[];
  readonly parts: readonly HandbookPart[];
  readonly isNumbered?: boolean;
  readonly font?: BookletFont;
  /** A picture as the address that holds it. */
  readonly logo?: string | null;
  readonly language: string | null;
  readonly kind: BookletKind;
}

/** The documentation of models as a file. */
export const handbookFile: Job<HandbookInput, FileMade> = async (models, input, tell) => {
  const opened = input.decisions.flatMap(({ id, content }) => {
    const document = openDocument(new TextEncoder().encode(content));
    return document.ok ? [[id, document.value] as const] : [];
  });
  const decisions = new Map<Id, (typeof opened)[number][1]>(opened);
  const words = (said: Said) => inLanguage(said, sentencesIn(input.language ?? undefined));
  /** What the first scenario comes to, where the figures are asked for. */
  const figures = (name: string): Pick<HandbookModel["more"], "figures"> => {
    if (!input.parts.includes("figures")) return {};
    const forecast = reportedForecast({ model: needs(models, name) }, input.roles, input.decisions);
    if (!forecast) return {};
    const { scenario, figures, why } = forecast;
    return { figures: figureBlocks({ scenario: scenario.name, figures, why }, words) };
  };
  /** What has changed from one model to another, change by change. */
  const changed = (from: string, to: string): Said[] => {
    if (!input.parts.includes("changes")) return [];
    const [before, now] = [needs(models, from), needs(models, to)];
    return changeGroups(before, now, compareModels(before, now)).map(({ said }) => said);
  };
  const seen = new Map<string, readonly SeenLens[]>();
  for (const { name, lensed: own } of input.models)
    if (own) seen.set(name, await lensed({ model: needs(models, name) }, own, tell));
  const told = input.models.map(
    ({ name, facts, hues, threads, approved }): HandbookModel => ({
      id: name,
      lenses: seen.get(name) ?? [],
      model: needs(models, name),
      facts: facts.map((fact) => ({ name: words(fact.name), says: line(fact.text) })),
      decisions,
      more: {
        ...figures(name),
        comments: commentBlocks(threads, words),
        ...(approved && { changes: changeBlocks(approved.revision, changed(approved.name, name), words) }),
      },
      hueOf: hueIn(hues),
    }),
  );
  const { booklet } = handbookOf({
    title: input.title,
    subtitle: input.subtitle,
    facts: [],
    models: told,
    entries: input.entries,
    parts: input.parts,
    isNumbered: input.isNumbered ?? false,
    logo: input.logo ? paintedLogo(input.logo).png : undefined,
    language: languageToTell(
      told.map(({ model }) => model),
      input.language ?? undefined,
    ),
    sentences: sentencesIn(input.language ?? undefined),
  });
  return orTooLarge(bookletFile({ ...booklet, font: input.font ?? "plain" }, input.kind));
};
