import { and, asc, eq } from "drizzle-orm";
import { nanoid } from "nanoid";
import { handoff as terms } from "@/contract";
import type { BuildCopyRow, PlaceRow } from "@/contract/handoff";
import { decodeXml, encodeXmlLike } from "@/core/bpmn";
import type { BuildState } from "@/core/handoff";
import { fromStored, type Model, toStored } from "@/core/model";
import { buildCopies, buildSteps, members, processes, versions } from "@/data/schema";
import type { SyncInput, SyncOutcome } from "@/jobs/syncs";
import { waiversOf } from "../check/waivers";
import { lock } from "../kernel/act";
import { inBackground } from "../kernel/background";
import { loadHead, replaceHead } from "../kernel/heads";
import { keepBefore, keepRevision } from "../kernel/revisions";
import { inThread } from "../kernel/threads";
import {
  type Context,
  localMember,
  longUseCase,
  notFound,
  type Outside,
  ownAct,
  runUseCase,
  UseCaseError,
  useCase,
} from "../kernel/useCase";
import { developed } from "./developer";
import { needsNoOpenError } from "./handoffs";
import type { Standing } from "./place";
import { allowedPlaces, demoRepository, placeNamed } from "./places";

type Copy = typeof buildCopies.$inferSelect;

async function copyOf({ db }: Context, version: string, copy: string): Promise<Copy> {
  const [row] = await db
    .select()
    .from(buildCopies)
    .where(and(eq(buildCopies.version, version), eq(buildCopies.id, copy)));
  if (!row) throw notFound("This build copy");
  return row;
}

/** What stands at a copy's spot now: its text, or why there is none. */
type Read =
  | { readonly text: string; readonly standing: Standing }
  | { readonly text: null; readonly standing: Standing }
  | { readonly problem: string; readonly standing: null };

async function readCopy(copy: Copy): Promise<Read> {
  try {
    const standing = await placeNamed(copy.place).read(copy);
    if (!standing.bytes) return { text: null, standing };
    const decoded = decodeXml(standing.bytes);
    if (decoded.ok) return { text: decoded.value, standing };
    return { problem: decoded.problems[0]?.message ?? "", standing: null };
  } catch (error) {
    if (error instanceof UseCaseError) return { problem: error.message, standing: null };
    throw error;
  }
}

const compared = (model: Model, input: SyncInput): Promise<SyncOutcome> =>
  inThread("syncCopy", { model: JSON.stringify(toStored(model)) }, input);

/** How a copy stands to its model, with what either side would get. */
async function standingOf(
  copy: Copy,
  model: Model,
): Promise<
  Pick<BuildCopyRow, "state" | "problem" | "brings" | "sends" | "conflicts" | "isRewritten"> & {
    readonly text: string | null;
    readonly mark: string | null;
  }
> {
  const nothing = { problem: null, brings: [], sends: [], conflicts: [], isRewritten: false, text: null, mark: null };
  const read = await readCopy(copy);
  if (read.standing === null) return { ...nothing, state: "cannot be read", problem: read.problem };
  if (read.text === null)
    return { ...nothing, state: copy.base === null ? "not sent yet" : "gone", mark: read.standing.mark };
  const outcome = await compared(model, { base: copy.base, build: read.text, decisions: {}, take: null });
  if (outcome.problem) {
    const { message, line, column } = outcome.problem;
    const place = line === undefined ? "" : `Line ${line}, column ${column ?? 1}: `;
    return { ...nothing, state: "cannot be read", problem: `${place}${message}` };
  }
  const { state, brings, sends, conflicts, isRewritten } = outcome;
  return { state, problem: null, brings, sends, conflicts, isRewritten, text: read.text, mark: read.standing.mark };
}

interface Step {
  readonly what: "sent" | "taken over" | "in step";
  readonly changes: readonly string[];
  /** The revision that holds what the file holds; null where none does. */
  readonly revision: number | null;
}

/** Both sides hold the same: that is what the next sync begins with. Nothing is kept of a copy that was untied meanwhile. */
async function keepBase(
  context: Context,
  copy: Pick<Copy, "id" | "version">,
  base: string,
  mark: string,
  { what, changes, revision }: Step,
): Promise<void> {
  const { db, member, now } = context;
  const [kept] = await db
    .update(buildCopies)
    .set({ base, mark, revision, member: member.id, at: now() })
    .where(eq(buildCopies.id, copy.id))
    .returning({ id: buildCopies.id });
  if (kept) await record(context, copy, what, mark, changes);
}

async function record(
  { db, member, now }: Context,
  copy: Pick<Copy, "id" | "version">,
  what: (typeof buildSteps.$inferInsert)["what"],
  mark: string | null,
  changes: readonly string[],
): Promise<void> {
  await db.insert(buildSteps).values({
    id: nanoid(12),
    version: copy.version,
    copy: copy.id,
    what,
    mark,
    changes: changes.slice(0, 200),
    member: member.id,
    at: now(),
  });
}

/** Looks at each copy now. One that both sides changed to the same is in step, and is known as such from then on. */
export const lookAtBuildCopies = longUseCase(terms.lookAtBuildCopies, async (outside, { version }) => {
  const { rows, steps, model, sequence, names } = await outside.read(async (context) => ({
    rows: await context.db
      .select()
      .from(buildCopies)
      .where(eq(buildCopies.version, version))
      .orderBy(asc(buildCopies.path)),
    steps: await context.db
      .select()
      .from(buildSteps)
      .where(eq(buildSteps.version, version))
      .orderBy(asc(buildSteps.at)),
    ...(await headOf(context, version)),
    names: new Map(
      (await context.db.select({ id: members.id, name: members.name }).from(members)).map((one) => [one.id, one.name]),
    ),
  }));
  const places = allowedPlaces().map(
    ({ id, kind, at }): PlaceRow => ({ id, kind, at, isDemo: at === demoRepository() }),
  );
  const copies = await Promise.all(
    rows.map(async (copy): Promise<BuildCopyRow> => {
      const { text, mark, ...standing } = await standingOf(copy, model);
      // Whoever may sync keeps what both sides came to by themselves, so that it is no change of either any more.
      const isNews = standing.state === "in step" && text !== null && mark !== null && text !== copy.base;
      if (isNews && outside.member.rights.includes("hand off"))
        await outside.write((context) => settle(context, copy, text, mark));
      const own = steps.filter((step) => step.copy === copy.id);
      return {
        id: copy.id,
        place: copy.place,
        branch: copy.branch,
        path: copy.path,
        ...standing,
        last:
          copy.mark === null
            ? null
            : { at: copy.at, member: names.get(copy.member) ?? "", mark: copy.mark, revision: copy.revision ?? 0 },
        steps: own.map(({ what, at, member, mark, changes }) => ({
          what,
          at,
          member: names.get(member) ?? "",
          mark,
          changes,
        })),
      };
    }),
  );
  await keepSeen(version, sequence, rows, copies);
  return { copies, places };
});

const headOf = async ({ db }: Context, version: string) => {
  const { model, sequence } = await loadHead(db, version);
  return { model, sequence };
};

/** Keeps how copies stand, for those who do not look themselves; where one stands otherwise than before, windows are told. */
async function keepSeen(
  version: string,
  sequence: number,
  before: readonly Copy[],
  copies: readonly { readonly id: string; readonly state: BuildState }[],
): Promise<void> {
  if (copies.length === 0) return;
  const isNews = copies.some(({ id, state }) => before.find((copy) => copy.id === id)?.seen !== state);
  await ownAct("lookAtBuildCopies", isNews ? [{ kind: "version", id: version }] : [], async ({ db, now }) => {
    for (const { id, state } of copies)
      await db
        .update(buildCopies)
        .set({ seen: state, seenAt: now(), seenSequence: sequence })
        .where(eq(buildCopies.id, id));
  });
}

/** Looks at the copies of a version behind what people do; once however often it is asked for meanwhile. */
export const lookInBackground = (version: string): Promise<void> =>
  inBackground(`look at build copies of ${version}`, async () => {
    await runUseCase(localMember, lookAtBuildCopies, { version });
  });

export const tieBuildCopy = useCase(terms.tieBuildCopy, async (context, { version, place, branch, path }) => {
  const { db, member, now } = context;
  await lock(db, "version", [version]);
  placeNamed(place);
  const isGit = place.startsWith("git:");
  if (isGit && branch === "") throw new UseCaseError("no-branch", "A repository needs the name of a branch.", 400);
  const known = await db.select().from(buildCopies).where(eq(buildCopies.place, place));
  const own = isGit ? branch : "";
  if (known.some((copy) => copy.path === path && copy.branch === own))
    throw new UseCaseError(
      "tied-already",
      "A version is tied to this file already. Two models in one file would overwrite each other.",
      409,
    );
  const copy = { id: nanoid(12), version };
  await db.insert(buildCopies).values({ ...copy, place, branch: own, path, member: member.id, at: now() });
  await record(context, copy, "tied", null, []);
  return { copy: copy.id };
});

export const untieBuildCopy = useCase(terms.untieBuildCopy, async (context, { version, copy }) => {
  await lock(context.db, "version", [version]);
  await copyOf(context, version, copy);
  await context.db.delete(buildSteps).where(eq(buildSteps.copy, copy));
  await context.db.delete(buildCopies).where(eq(buildCopies.id, copy));
  return {};
});

interface Here {
  readonly copy: Copy;
  readonly model: Model;
  /** The state of the version that the model is. */
  readonly sequence: number;
  readonly title: string;
}

/** @param leaves whether the model is about to leave, so that no error may be open in it */
const here = (outside: Outside, version: string, copy: string, leaves = false): Promise<Here> =>
  outside.read(async (context) => {
    const [row] = await context.db
      .select({ process: processes.name, version: versions.name })
      .from(versions)
      .innerJoin(processes, eq(processes.id, versions.process))
      .where(eq(versions.id, version));
    const head = await loadHead(context.db, version);
    const { model, sequence } = head;
    if (leaves) await needsNoOpenError(context, head, await waiversOf(context.db, version), "send");
    return {
      copy: await copyOf(context, version, copy),
      model,
      sequence,
      title: row ? `${row.process}, ${row.version}` : "",
    };
  });

/**
 * Writes what the model changed. What is written first is the file, all or nothing: should this process end before it is recorded, both
 * sides hold the same, which the next look finds by itself.
 */
export const sendToBuildCopy = longUseCase(terms.sendToBuildCopy, async (outside, { version, copy: id }) => {
  const { copy, model, sequence, title } = await here(outside, version, id, true);
  const read = await readCopy(copy);
  if (read.standing === null) throw new UseCaseError("cannot-be-read", read.problem, 409);
  let text: string;
  let changes: readonly string[] = [title];
  if (read.text === null) text = await inThread("bpmnFile", { model: JSON.stringify(toStored(model)) }, {});
  else {
    const outcome = await compared(model, { base: copy.base, build: read.text, decisions: {}, take: null });
    if (outcome.problem) throw new UseCaseError("cannot-be-read", outcome.problem.message, 409);
    if (outcome.state === "build copy changed" || outcome.state === "both changed")
      throw new UseCaseError(
        "take-over-first",
        "The build copy has changes that the model has not. Take them over first, so that nothing of them is lost.",
        409,
      );
    if (outcome.state === "in step")
      return outside.write(async (context) => settle(context, copy, read.text, read.standing.mark));
    text = outcome.text;
    changes = outcome.sends.map(({ words }) => words);
  }
  const bytes = read.standing.bytes ? encodeXmlLike(read.standing.bytes, text) : new TextEncoder().encode(text);
  const mark = await placeNamed(copy.place).write(copy, {
    bytes,
    mark: read.standing.mark,
    message: messageOf(title, changes),
    author: outside.member.name,
  });
  await outside.write(async (context) => {
    await lock(context.db, "version", [version]);
    // Whoever went on writing meanwhile has another state by now; then no revision holds just what was sent.
    const isThatState = (await loadHead(context.db, version)).sequence === sequence;
    const revision = isThatState ? await keepRevision(context, version, "sent to developers") : null;
    await keepBase(context, copy, text, mark, { what: "sent", changes, revision });
  });
  return { mark };
});

async function settle(context: Context, copy: Copy, text: string, mark: string): Promise<{ mark: string }> {
  if (copy.base !== text)
    await keepBase(context, copy, text, mark, { what: "in step", changes: [], revision: copy.revision });
  return { mark };
}

/** A commit's message: the model in its first line, then a line for each change. */
function messageOf(title: string, changes: readonly string[]): string {
  const lines = changes.slice(0, 50).map((words) => `- ${words.replace(/\s+/g, " ")}`);
  const more = changes.length > 50 ? [`- and ${changes.length - 50} more`] : [];
  return `${title.replace(/\s+/g, " ")}\n\n${[...lines, ...more].join("\n")}\n`;
}

/** What developers changed comes into the model; what both changed differently is decided, or nothing is written. */
export const takeOverBuildCopy = longUseCase(
  terms.takeOverBuildCopy,
  async (outside, { version, copy: id, take, decisions }) => {
    const { copy, model, sequence } = await here(outside, version, id);
    const read = await readCopy(copy);
    if (read.standing === null || read.text === null)
      throw new UseCaseError("cannot-be-read", read.standing === null ? read.problem : "The file is not there.", 409);
    const outcome = await compared(model, { base: copy.base, build: read.text, decisions, take });
    if (outcome.problem) throw new UseCaseError("cannot-be-read", outcome.problem.message, 409);
    if (outcome.conflicts.length > 0 && take === "all")
      throw new UseCaseError("undecided", "Both sides changed the same thing. Say for each which one holds.", 409);
    if (outcome.refused !== null) throw new UseCaseError("not-taken-over", outcome.refused, 409);
    const stored = outcome.taken && fromStored(outcome.taken);
    if (!stored?.ok) throw new UseCaseError("cannot-be-read", "What was taken over would not be a model.", 409);
    const { text, standing } = read;
    return outside.write(async (context) => {
      await lock(context.db, "version", [version]);
      if ((await loadHead(context.db, version)).sequence !== sequence)
        throw new UseCaseError("model-moved", "The model changed just now. Nothing was taken over; look again.", 409);
      await keepBefore(context, version, "taking over from developers");
      const head = await replaceHead(context, version, stored.value, "take over from the build copy");
      const changes = outcome.brings
        .filter(({ key }) => take === "all" || take.includes(key))
        .map(({ words }) => words);
      if (take === "all") {
        const revision = await keepRevision(context, version, "taken over from developers");
        await keepBase(context, copy, text, standing.mark, { what: "taken over", changes, revision });
      } else await record(context, copy, "taken over", standing.mark, changes);
      return { sequence: head.sequence };
    });
  },
);

/** The developers' file as a model, to be looked at beside the version. */
export const openBuildCopy = longUseCase(terms.openBuildCopy, async (outside, { version, copy: id }) => {
  const { copy, model } = await here(outside, version, id);
  const read = await readCopy(copy);
  if (read.standing === null || read.text === null)
    throw new UseCaseError("cannot-be-read", read.standing === null ? read.problem : "The file is not there.", 409);
  const built = await inThread("builtModel", { model: JSON.stringify(toStored(model)) }, { build: read.text });
  if ("problem" in built)
    throw new UseCaseError("cannot-be-read", built.problem?.said ?? "The file cannot be read.", 409);
  return { title: copy.path, model: built.model };
});

/** The demo's developer works on the file and commits. */
export const askDeveloper = longUseCase(terms.askDeveloper, async (outside, { version, copy: id }) => {
  const { copy } = await here(outside, version, id);
  if (copy.place !== `git:${demoRepository()}`)
    throw new UseCaseError("no-developer", "Only the demo's repository has a simulated developer.", 409);
  const read = await readCopy(copy);
  if (read.standing === null || read.text === null)
    throw new UseCaseError(
      "cannot-be-read",
      "There is no file yet that a developer could work on. Send it first.",
      409,
    );
  const { text, message } = developed(read.text);
  await placeNamed(copy.place).write(copy, {
    bytes: encodeXmlLike(read.standing.bytes as Uint8Array, text),
    mark: read.standing.mark,
    message,
    author: "Simulated developer",
  });
  return { message };
});
