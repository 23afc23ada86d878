import { and, eq, inArray, isNull } from "drizzle-orm";
import { evidence as terms } from "@/contract";
import { toStored } from "@/core/model";
import { logs, members, processes, versions } from "@/data/schema";
import { huesOf } from "../handoff/handoffs";
import { loadHead } from "../kernel/heads";
import { inThread } from "../kernel/threads";
import { longUseCase, notFound, UseCaseError } from "../kernel/useCase";
import { withCalled } from "../walk/walks";
import { thatLog } from "./logs";

/** What a log says of a version as it is now: read from one state, held and written in a thread with nothing held meanwhile. */
export const reportFile = longUseCase(terms.reportFile, async (outside, { version, log, kind, filters }) => {
  const { name, models, input } = await outside.read(async ({ db }) => {
    const [row] = await db
      .select({ name: logs.name, content: logs.content, steps: logs.steps, judged: logs.judged })
      .from(logs)
      .where(await thatLog(db, version, log));
    if (!row) throw notFound("This log");
    const [titles] = await db
      .select({ version: versions.name, process: processes.name })
      .from(versions)
      .innerJoin(processes, eq(processes.id, versions.process))
      .where(and(eq(versions.id, version), isNull(versions.deletedAt)));
    const ids = row.judged.map(({ member }) => member);
    const by = await db.select({ id: members.id, name: members.name }).from(members).where(inArray(members.id, ids));
    const names = new Map(by.map((one) => [one.id, one.name]));
    const head = await loadHead(db, version);
    const called = await withCalled(db, head);
    return {
      name: `${titles?.process ?? ""} evidence`.trim(),
      models: Object.fromEntries(
        Object.entries(called.models).map(([slot, model]) => [slot, JSON.stringify(toStored(model))]),
      ),
      input: {
        log: `report ${log}`,
        packed: new Uint8Array(row.content),
        filters,
        steps: row.steps,
        title: `Evidence: ${titles?.process ?? ""}`,
        subtitle: titles?.version ?? "",
        name: row.name,
        judged: row.judged.map((one) => ({ ...one, member: names.get(one.member) ?? "" })),
        hues: await huesOf(db, head.model),
        kind,
      },
    };
  });
  const file = await inThread("evidenceReport", models, input);
  if ("tooLarge" in file) throw new UseCaseError("too-large", file.tooLarge, 422);
  return { name, bytes: file.bytes };
});
