import { getTableColumns, getTableName, type Table } from "drizzle-orm";
import { getTableConfig, type PgTable } from "drizzle-orm/pg-core";
import * as schema from "./schema";

/** What becomes of rows that hang on a version. */
export interface Hangs {
  /** The column that names the version. */
  readonly by: string;
  /** Further columns that name a version: a row is copied where that one is copied too. */
  readonly alsoBy?: readonly string[];
  /** Whether rows go along into a to-be that is copied from the version, and into a copy of the whole process. */
  readonly intoToBe: boolean;
  readonly intoCopy: boolean;
  /**
   * When a to-be becomes the as-is: its rows stay with it, or go along and take the place of those of the as-is that are the same by
   * these columns.
   */
  readonly whenAdopted: "stays" | { readonly replacesBy: readonly string[] };
}

interface Registered {
  readonly table: PgTable;
  /**
   * Kept in a backup as it is, or made anew from the rest when one is restored; or of the installation, which no backup carries and no
   * restore touches.
   */
  readonly backup: "kept" | "derived" | "of the installation";
  /** Columns that name a row of another table, by its id. */
  readonly names?: { readonly [column: string]: string };
  /** Columns that are not kept: what they say is found out anew. */
  readonly leftOut?: readonly string[];
  readonly hangs?: Hangs;
}

const ofVersion = { version: "versions" } as const;
/** Made with the version itself, or about what was done to just this one. */
const stays = { by: "version", intoToBe: false, intoCopy: false, whenAdopted: "stays" } as const;

/**
 * Every table of the workspace, in the order in which a backup is read. Copies, adoption, backups and deletions go by it; a test holds
 * it against the schema. A table that hangs on a version is made known here, and nowhere else.
 */
export const register = {
  workspace: { table: schema.workspace, backup: "kept" },
  members: { table: schema.members, backup: "kept" },
  areas: { table: schema.areas, backup: "kept", names: { parent: "areas" } },
  briefs: { table: schema.briefs, backup: "kept", leftOut: ["summary", "summaryHolds"] },
  processes: { table: schema.processes, backup: "kept", names: { area: "areas", brief: "briefs" } },
  versions: { table: schema.versions, backup: "kept", names: { process: "processes" } },
  heads: {
    table: schema.heads,
    backup: "kept",
    names: ofVersion,
    leftOut: ["summary", "summaryHolds", "damaged"],
    hangs: stays,
  },
  log: { table: schema.log, backup: "kept", names: ofVersion, hangs: stays },
  revisions: { table: schema.revisions, backup: "kept", names: ofVersion, hangs: stays },
  directory: { table: schema.directory, backup: "kept" },
  files: { table: schema.files, backup: "kept" },
  descriptions: { table: schema.descriptions, backup: "kept" },
  decisionFiles: { table: schema.decisionFiles, backup: "kept" },
  waivers: {
    table: schema.waivers,
    backup: "kept",
    names: ofVersion,
    // What was accepted holds as long as what it is about stays as it was, wherever that stands.
    hangs: { by: "version", intoToBe: true, intoCopy: true, whenAdopted: { replacesBy: ["finding"] } },
  },
  walkTests: {
    table: schema.walkTests,
    backup: "kept",
    names: ofVersion,
    hangs: { by: "version", intoToBe: true, intoCopy: true, whenAdopted: { replacesBy: ["name"] } },
  },
  changeReasons: {
    table: schema.changeReasons,
    backup: "kept",
    names: ofVersion,
    hangs: { by: "version", alsoBy: ["against"], intoToBe: false, intoCopy: true, whenAdopted: "stays" },
  },
  threads: {
    table: schema.threads,
    backup: "kept",
    names: ofVersion,
    // What is said of an element is said of the same one in a to-be; what is settled there is settled when that is adopted.
    hangs: { by: "version", intoToBe: true, intoCopy: true, whenAdopted: { replacesBy: ["origin"] } },
  },
  links: { table: schema.links, backup: "kept", names: ofVersion, hangs: stays },
  reviews: { table: schema.reviews, backup: "kept", names: ofVersion, hangs: stays },
  verdicts: { table: schema.verdicts, backup: "kept", names: ofVersion, hangs: stays },
  handoffs: { table: schema.handoffs, backup: "kept", names: ofVersion, hangs: stays },
  buildCopies: { table: schema.buildCopies, backup: "kept", names: ofVersion, hangs: stays },
  buildSteps: {
    table: schema.buildSteps,
    backup: "kept",
    names: { ...ofVersion, copy: "buildCopies" },
    hangs: stays,
  },
  logs: { table: schema.logs, backup: "kept", names: ofVersion, hangs: stays },
  runs: { table: schema.runs, backup: "kept", names: ofVersion, hangs: stays },
  renewals: { table: schema.renewals, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  liveCases: { table: schema.liveCases, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  liveWaits: { table: schema.liveWaits, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  liveEvents: { table: schema.liveEvents, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  liveSignals: { table: schema.liveSignals, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  lenses: { table: schema.lenses, backup: "kept" },
  templates: { table: schema.templates, backup: "kept" },
  programKeys: { table: schema.programKeys, backup: "kept" },
  liveAlerts: { table: schema.liveAlerts, backup: "kept", names: { ...ofVersion, run: "runs" }, hangs: stays },
  elements: { table: schema.elements, backup: "derived", names: ofVersion, hangs: stays },
  uses: { table: schema.uses, backup: "derived", names: ofVersion, hangs: stays },
  wordLinks: { table: schema.wordLinks, backup: "derived", names: ofVersion, hangs: stays },
  signInUsers: { table: schema.signInUsers, backup: "of the installation" },
  signInSessions: { table: schema.signInSessions, backup: "of the installation" },
  signInAccounts: { table: schema.signInAccounts, backup: "of the installation" },
  signInVerifications: { table: schema.signInVerifications, backup: "of the installation" },
  signInTries: { table: schema.signInTries, backup: "of the installation" },
  invitations: { table: schema.invitations, backup: "of the installation" },
  digests: { table: schema.digests, backup: "of the installation" },
  secrets: { table: schema.secrets, backup: "of the installation" },
  audit: { table: schema.audit, backup: "of the installation" },
} as const satisfies { readonly [name: string]: Registered };

export type TableName = keyof typeof register;
export const registered = Object.entries(register) as readonly (readonly [TableName, Registered])[];

/** The columns that tell a table's rows apart, by their names in the schema. */
export function keyOf(table: PgTable): string[] {
  const columns = Object.entries(getTableColumns(table as Table));
  const composed = getTableConfig(table).primaryKeys.flatMap((key) => key.columns.map((column) => column.name));
  const own = columns.filter(([, column]) => column.primary || composed.includes(column.name));
  if (own.length === 0) throw new Error(`The table ${getTableName(table)} has no key.`);
  return composed.length > 0
    ? composed.map((name) => own.find(([, column]) => column.name === name)?.[0] as string)
    : own.map(([name]) => name);
}
