import { and, asc, eq, inArray, isNull, or, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { brief as terms } from "@/contract";
import type { BuiltProcess, ProcessGrowth } from "@/contract/brief";
import { type BriefContent, type Frame, linksOf, nodeOf, stepNames } from "@/core/brief";
import { isTidy } from "@/core/commands";
import { foldedName } from "@/core/directory";
import { say, term } from "@/core/messages";
import { flowNodesIn, type Id, type Model, problem, processesOf } from "@/core/model";
import { briefs, processes, versions } from "@/data/schema";
import { enterNames, namesIn } from "../directory/directoryNames";
import { createProcess } from "../home/processes";
import { lock, type Transaction } from "../kernel/act";
import { linksOfVersions, processesOfBrief } from "../kernel/briefLinks";
import { generationOf, needsGeneration } from "../kernel/generation";
import { loadHead, stateOf } from "../kernel/heads";
import { keepBefore } from "../kernel/revisions";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { workedOut } from "../kernel/workedOut";
import { applyCommands } from "../version/editing";

/** The description a process shares with others, what became of it, and which elements stand for its words. */
export const openBrief = query(terms.openBrief, async ({ db }, input) => {
  const [process] = await db
    .select({ brief: processes.brief, name: processes.name })
    .from(processes)
    .where(and(eq(processes.id, input.process), isNull(processes.deletedAt)));
  if (!process) throw notFound("This process");
  const [brief] = process.brief ? await db.select().from(briefs).where(eq(briefs.id, process.brief)) : [];
  const told = brief ? await processesOfBrief(db, brief.id) : [];
  return {
    generation: await generationOf(db),
    brief: brief ? { id: brief.id, revision: brief.revision, content: brief.content } : null,
    processes: told,
    links: await linksOfVersions(
      db,
      told.flatMap((one) => one.version ?? []),
    ),
  };
});

/** Keeps a description. One that was changed elsewhere since is not overwritten: the answer is a refusal. */
export const saveBrief = useCase(terms.saveBrief, async ({ db, member, now }, input) => {
  await needsGeneration(db, input.generation);
  await lock(db, "brief", [await briefLock(db, input.process)]);
  const [process] = await db
    .select({ brief: processes.brief })
    .from(processes)
    .where(and(eq(processes.id, input.process), isNull(processes.deletedAt)));
  if (!process) throw notFound("This process");
  if (process.brief !== null && process.brief !== input.brief) throw changedElsewhere();
  const [stored] = await db.select({ content: briefs.content }).from(briefs).where(eq(briefs.id, input.brief));
  const content = stored ? withWhatIsBuilt(input.content, stored.content) : input.content;
  const row = { content, member: member.id, changedAt: now(), save: input.save, summaryHolds: false };
  if (process.brief === null) {
    const revision = input.base + 1;
    await needsFreeId(db, briefs, input.brief);
    await db.insert(briefs).values({ id: input.brief, ...row, revision });
    await db.update(processes).set({ brief: input.brief }).where(eq(processes.id, input.process));
    return { revision };
  }
  const [changed] = await db
    .update(briefs)
    .set({ ...row, revision: sql`${briefs.revision} + 1` })
    .where(and(eq(briefs.id, input.brief), or(eq(briefs.revision, input.base), inArray(briefs.save, input.unanswered))))
    .returning({ revision: briefs.revision });
  if (!changed) throw changedElsewhere();
  return changed;
});

/** What was built of a description is known to the server alone: a text that was written meanwhile does not take it back. */
function withWhatIsBuilt(content: BriefContent, stored: BriefContent): BriefContent {
  const built = { ...content.built };
  for (const [key, marks] of Object.entries(stored.built)) built[key] = [...new Set([...(built[key] ?? []), ...marks])];
  const frames = new Map(content.frames.map((setting) => [setting.key, setting]));
  for (const { key, process } of stored.frames)
    if (process !== undefined && frames.get(key)?.process === undefined)
      frames.set(key, { ...frames.get(key), key, process });
  return { ...content, built, frames: [...frames.values()] };
}

/** What is locked of the description of a process: the description, or the process that is to get one. */
async function briefLock(db: Transaction, process: string): Promise<string> {
  const [row] = await db.select({ brief: processes.brief }).from(processes).where(eq(processes.id, process));
  return row?.brief ?? process;
}

const changedElsewhere = () =>
  new UseCaseError(
    "changed-elsewhere",
    "The description was changed elsewhere since you opened it. Take that text, or keep yours.",
    409,
  );

/**
 * Builds the processes of a description, or adds to them what its text has grown by. The process it is asked from takes the first
 * frame that has none yet; others are made beside it. What a version held before is kept as a revision.
 */
export const buildProcesses = useCase(
  terms.buildProcesses,
  async (context, input): Promise<{ built: BuiltProcess[] }> => {
    const { db } = context;
    // Held from here on: what is written back is the description that was read, and what was built from it.
    await lock(db, "home");
    await lock(db, "directory");
    const [of] = await db.select({ process: versions.process }).from(versions).where(eq(versions.id, input.version));
    if (!of) throw notFound("This version");
    await lock(db, "brief", [await briefLock(db, of.process)]);
    const [here] = await db
      .select({ process: processes.id, area: processes.area, brief: processes.brief })
      .from(versions)
      .innerJoin(processes, eq(processes.id, versions.process))
      .where(and(eq(versions.id, input.version), isNull(versions.deletedAt), isNull(processes.deletedAt)));
    if (!here) throw notFound("This version");
    const [brief] = here.brief ? await db.select().from(briefs).where(eq(briefs.id, here.brief)) : [];
    if (!brief) throw notFound("The description of this process");
    const { content } = brief;
    const all = await workedOut(context, "framesTold", [brief.id, brief.revision], {}, { content });
    const frames = all.filter((frame) => input.frames?.includes(frame.key) ?? true);
    const homes = await homesOf(context, frames, all, content, { ...here, brief: brief.id, version: input.version });
    await lock(
      db,
      "version",
      [...homes.values()].map((home) => home.version),
    );
    const called = new Map<string, Id>();
    for (const [key, home] of homes) {
      const [process] = processesOf((await loadHead(db, home.version)).model);
      if (process) called.set(key, process.id);
    }
    const built: BuiltProcess[] = [];
    const refused: { frame: Frame; reason: string }[] = [];
    const marks = { ...content.built };
    const names = { ...content.named };
    for (const frame of frames) {
      const home = homes.get(frame.key) as Home;
      const left = new Set(input.leave);
      const told = new Map(stepNames(frame.items));
      const own = [...told.keys()].filter((mark) => left.has(mark));
      const settled = { ...content, built: { ...content.built, [frame.key]: [...(marks[frame.key] ?? []), ...own] } };
      const result = await buildInto(context, frame, home, settled, Object.fromEntries(called));
      if (typeof result === "string") refused.push({ frame, reason: result });
      else {
        await settle(context, home, told, input);
        marks[frame.key] = [...new Set([...(marks[frame.key] ?? []), ...own, ...result.marks])];
        for (const mark of [...result.marks, ...input.rename])
          if (told.has(mark)) names[mark] = told.get(mark) as string;
        built.push({
          frame: frame.key,
          process: home.process,
          version: home.version,
          name: frame.name,
          added: result.added,
        });
      }
    }
    // One that cannot be built stands in the way of all: half of them would be worse than none.
    if (refused.length > 0) throw notBuilt(refused);
    const settings = new Map(content.frames.map((setting) => [setting.key, setting]));
    for (const [key, home] of homes) settings.set(key, { ...settings.get(key), key, process: home.process });
    await db
      .update(briefs)
      .set({
        content: { ...content, frames: [...settings.values()], built: marks, named: names },
        changedAt: context.now(),
        summaryHolds: false,
      })
      .where(eq(briefs.id, brief.id));
    return { built };
  },
);

/** Why nothing was built, process by process; each detail's code is the frame it is about. */
const notBuilt = (refused: readonly { readonly frame: Frame; readonly reason: string }[]) =>
  new UseCaseError(
    "not-built",
    say`Nothing was built. ${refused.map(({ frame, reason }) => `"${frame.name}": ${reason}`).join(" ")}`,
    409,
    refused.map(({ frame, reason }) => problem({ code: frame.key, message: term(reason) })),
  );

/** What building again would add to the processes that are there already, and what of them the text says otherwise by now. */
export const previewBuild = query(terms.previewBuild, async (context, input) => {
  const { db } = context;
  const [here] = await db
    .select({ brief: processes.brief })
    .from(versions)
    .innerJoin(processes, eq(processes.id, versions.process))
    .where(and(eq(versions.id, input.version), isNull(versions.deletedAt), isNull(processes.deletedAt)));
  const [brief] = here?.brief ? await db.select().from(briefs).where(eq(briefs.id, here.brief)) : [];
  if (!brief) throw notFound("The description of this process");
  const { content } = brief;
  const all = await workedOut(context, "framesTold", [brief.id, brief.revision], {}, { content });
  const told = await processesOfBrief(db, brief.id);
  const found: ProcessGrowth[] = [];
  for (const frame of all) {
    const home = told.find((one) => one.id === frame.process);
    if (!home?.version || !(input.frames?.includes(frame.key) ?? true)) continue;
    const head = await loadHead(db, home.version);
    const state = [...stateOf(head), brief.id, brief.revision];
    const growth = await workedOut(context, "frameGrowth", state, { model: head.model }, { content, frame: frame.key });
    found.push({
      frame: frame.key,
      version: home.version,
      name: home.name,
      hasSteps: nodesOf(head.model) > 0,
      ...growth,
    });
  }
  return { processes: found };
});

/** Gives elements the names the text has for them by now, and takes out those whose words have gone, as was chosen. */
async function settle(
  context: Context,
  home: Home,
  told: ReadonlyMap<string, string>,
  chosen: { readonly rename: readonly string[]; readonly drop: readonly { version: string; element: string }[] },
): Promise<void> {
  const head = await loadHead(context.db, home.version);
  const links = linksOf(head.model);
  const renamed = chosen.rename.flatMap((mark) => {
    const id = nodeOf(head.model, links, mark);
    const name = told.get(mark);
    return id === undefined || name === undefined ? [] : [{ type: "rename" as const, id, name }];
  });
  const gone = chosen.drop
    .filter((one) => one.version === home.version && head.model.elements.has(one.element))
    .map((one) => one.element);
  const commands = [...renamed, ...(gone.length > 0 ? [{ type: "delete" as const, ids: gone }] : [])];
  if (commands.length === 0) return;
  await keepBefore(context, home.version, "building from the brief");
  await applyCommands.run(
    { ...context, waits: true },
    {
      version: home.version,
      batch: nanoid(),
      base: head.sequence,
      commands: commands as never,
      label: "follow the text of the brief",
    },
  );
}

interface Home {
  readonly process: string;
  readonly version: string;
}

/** The process and version each frame is built into; made where there is none. */
async function homesOf(
  context: Context,
  frames: readonly Frame[],
  all: readonly Frame[],
  content: BriefContent,
  here: { process: string; area: string; brief: string; version: string },
): Promise<Map<string, Home>> {
  const { db } = context;
  const live = await db
    .select({ process: processes.id, name: processes.name, version: versions.id })
    .from(processes)
    .innerJoin(versions, eq(versions.process, processes.id))
    .where(and(isNull(processes.deletedAt), isNull(versions.deletedAt)))
    .orderBy(asc(versions.createdAt));
  const taken = new Set(content.frames.map((setting) => setting.process));
  const homes = new Map<string, Home>();
  // What has steps and no start cannot be built into; that stands in the way of the frame it is for, not of the others.
  const { model } = await loadHead(db, here.version);
  const isStuck = nodesOf(model) > 0 && startOf(model) === undefined;
  const first = all.find((frame) => frame.kind !== "shared" && frame.kind !== "part" && frame.process === undefined);
  for (const frame of frames) {
    const known = live.find((row) => row.process === frame.process);
    const isOwn =
      frame.process === here.process ||
      (!known &&
        frame.kind !== "shared" &&
        frame.kind !== "part" &&
        !taken.has(here.process) &&
        (!isStuck || frame.key === first?.key));
    if (isOwn) {
      taken.add(here.process);
      homes.set(frame.key, { process: here.process, version: here.version });
    } else if (known) homes.set(frame.key, known);
    else {
      // What is called may exist already: a process of that name is called, and nothing is added to what it holds.
      const callee = frame.kind === "shared" || frame.kind === "part";
      const same = callee ? live.find((row) => foldedName(row.name) === foldedName(frame.name)) : undefined;
      if (same) homes.set(frame.key, same);
      else {
        const made = await createProcess.run(context, { name: frame.name, area: here.area });
        await db.update(processes).set({ brief: here.brief }).where(eq(processes.id, made.process));
        homes.set(frame.key, made);
      }
    }
  }
  return homes;
}

/** Builds one frame into a version's head. Gives what was made, or the reason why nothing was. */
async function buildInto(
  context: Context,
  frame: Frame,
  home: Home,
  content: BriefContent,
  called: { readonly [frame: string]: Id },
): Promise<{ marks: readonly string[]; added: number } | string> {
  const { db } = context;
  const head = await loadHead(db, home.version);
  const isReused = (frame.kind === "shared" || frame.kind === "part") && !frame.process && nodesOf(head.model) > 0;
  if (isReused) return { marks: [], added: 0 };
  const page = [...head.model.diagrams].sort((a, b) => a.order - b.order)[0]?.id as Id;
  const input = {
    content,
    frame: frame.key,
    directory: await namesIn(db),
    called,
    tidy: isTidy(head.model, page) ? page : undefined,
  };
  // What it is built into may have been made in this act; so it is waited for inside the act.
  const made = await workedOut({ waits: true }, "frameBuilt", stateOf(head), { model: head.model }, input);
  if ("refused" in made) return made.refused;
  const { commands, marks } = made;
  if (commands.length === 0) return { marks, added: 0 };
  await enterNames(db, made.made);
  if (nodesOf(head.model) > 0) await keepBefore(context, home.version, "building from the brief");
  for (let at = 0; at < commands.length; at += 400) {
    await applyCommands.run(
      { ...context, waits: true },
      {
        version: home.version,
        batch: nanoid(),
        base: (await loadHead(db, home.version)).sequence,
        commands: commands.slice(at, at + 400) as never,
        label: `build "${frame.name}" from the brief`,
      },
    );
  }
  // What came, whatever went for it.
  const before = new Set(nodeIds(head.model));
  const after = nodeIds((await loadHead(db, home.version)).model);
  return { marks, added: after.filter((id) => !before.has(id)).length };
}

const startOf = (model: Model) => {
  const [process] = processesOf(model);
  return process && flowNodesIn(model, process.id).find((node) => node.type === "startEvent");
};

const nodeIds = (model: Model): Id[] => {
  const [process] = processesOf(model);
  return process ? flowNodesIn(model, process.id).map((node) => node.id) : [];
};

const nodesOf = (model: Model) => nodeIds(model).length;
