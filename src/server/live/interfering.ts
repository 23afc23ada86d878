import { and, eq } from "drizzle-orm";
import { live as terms } from "@/contract";
import type { Interference } from "@/contract/live";
import { byData, Engine } from "@/core/live";
import { nameOf } from "@/core/model";
import { liveCases } from "@/data/schema";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";
import { shownAt } from "./clock";
import { type Deed, openWait, type Stepped, settled, stepCase, waitIn } from "./stepping";
import { type OpenedRun, openedRun, runOf } from "./world";

type OnCase = Pick<Stepped, "engine"> & { readonly row: { isSuspended: boolean } };

/**
 * What somebody does to a case from outside, done; the same for who does it and for who only asks what would follow.
 * @throws UseCaseError or RangeError where the semantics forbid it
 */
function interfere({ engine, row }: OnCase, one: Interference): void {
  switch (one.what) {
    case "data":
      engine.setData(one.values);
      return;
    case "suspend":
    case "resume":
      if (engine.state !== "open") throw new UseCaseError("over", "This case is over.", 409);
      row.isSuspended = one.what === "suspend";
      return;
    case "cancel":
      if (engine.state !== "open") throw new UseCaseError("over", "This case is over already.", 409);
      engine.cancel();
      return;
  }
  const wait = waitIn(engine, one.wait);
  switch (one.what) {
    case "retry":
      engine.retry(one.wait);
      return;
    case "skip":
      if (wait.kind === "incident" && !wait.isWork)
        throw new UseCaseError("not-a-step", "Only a step can be left out. Lead this one on, or mend its data.", 409);
      engine.complete(one.wait, one.values);
      return;
    case "move":
      engine.move(one.wait, one.to);
      return;
    case "lead":
      engine.lead(one.wait, one.flows);
      return;
    case "happen":
      if (!["message", "signal", "timer", "condition"].includes(wait.kind))
        throw new UseCaseError(
          "not-an-event",
          "This is no event: it is work, which is completed in the worklist.",
          409,
        );
      engine.happen(one.wait, one.values);
  }
}

interface OnWait {
  readonly version: string;
  readonly run: string;
  readonly number: number;
  readonly wait: number;
  readonly act: string;
  readonly reason?: string;
  readonly values?: { readonly [name: string]: unknown };
}

/** Something a person does to what a case waits for, written into its audit. */
export async function onWait(
  context: Context,
  input: OnWait,
  kind: string,
  run: (stepped: Stepped) => void,
): Promise<Record<string, never>> {
  const deed: Deed & { element: string | undefined } = {
    kind,
    act: input.act,
    wait: input.wait,
    ...(input.reason !== undefined && { reason: input.reason }),
    ...(input.values && { data: input.values }),
    element: undefined,
  };
  await stepCase(context, input, deed, (stepped) => {
    const wait = openWait(stepped, input.wait);
    deed.element = wait.event ?? wait.node;
    run(stepped);
  });
  return {};
}

export const letHappen = useCase(terms.letHappen, (context, input) =>
  onWait(context, input, "happened", (stepped) => interfere(stepped, { what: "happen", ...input })),
);

export const retryIncident = useCase(terms.retryIncident, (context, input) =>
  onWait(context, input, "retried", (stepped) => interfere(stepped, { what: "retry", ...input })),
);

export const skipStep = useCase(terms.skipStep, (context, input) =>
  onWait(context, input, "skipped", (stepped) => interfere(stepped, { what: "skip", ...input })),
);

export const moveToken = useCase(terms.moveToken, (context, input) =>
  onWait(context, input, "moved", (stepped) => interfere(stepped, { what: "move", ...input })),
);

export const leadOn = useCase(terms.leadOn, (context, input) =>
  onWait(context, input, "led on", (stepped) => interfere(stepped, { what: "lead", ...input })),
);

export const setCaseData = useCase(terms.setCaseData, async (context, { values, reason, act, ...at }) => {
  await stepCase(context, at, { kind: "data changed", act, reason, data: values }, (stepped) =>
    interfere(stepped, { what: "data", values }),
  );
  return {};
});

export const suspendCase = useCase(terms.suspendCase, async (context, { isSuspended, reason, act, ...at }) => {
  const kind = isSuspended ? "suspended" : "resumed";
  await stepCase(context, at, { kind, act, reason }, (stepped) =>
    interfere(stepped, { what: isSuspended ? "suspend" : "resume" }),
  );
  return {};
});

export const cancelCase = useCase(terms.cancelCase, async (context, { reason, act, ...at }) => {
  await stepCase(context, at, { kind: "cancelled", act, reason }, (stepped) => interfere(stepped, { what: "cancel" }));
  return {};
});

/** Where a case stands, by name and by what is waited for. */
const standing = (engine: Engine, { models }: OpenedRun) =>
  new Map(
    [...engine.waits].map(({ id, kind, node, event }) => {
      const element = event ?? node;
      const model = models.find((one) => one.elements.has(element));
      return [id, { kind, name: (model && nameOf(model, element)) || element }] as const;
    }),
  );

/** What would follow, without anything being done. */
export const previewCase = query(terms.previewCase, async ({ db }, { version, run: id, number, doing }) => {
  const run = await runOf(db, version, id);
  const [row] = await db
    .select()
    .from(liveCases)
    .where(and(eq(liveCases.run, id), eq(liveCases.number, number)));
  if (!row) throw notFound("This case");
  const opened = await openedRun(db, run, row.edition);
  const running = { world: opened.world, choosing: byData, zone: "UTC", now: shownAt(run.clock) };
  const engine = Engine.load(running, row.content);
  const before = standing(engine, opened);
  try {
    if (run.endedAt) throw new UseCaseError("run-ended", "This run has ended. Nothing more is done in it.", 409);
    interfere({ engine, row }, doing);
  } catch (error) {
    if (error instanceof UseCaseError || error instanceof RangeError)
      return { refused: error.message, state: row.state, isSuspended: row.isSuspended, ends: [], comes: [] };
    throw error;
  }
  settled(engine, opened);
  const after = engine.state === "open" ? standing(engine, opened) : new Map<number, never>();
  return {
    refused: null,
    state: engine.state,
    isSuspended: row.isSuspended,
    ends: [...before].flatMap(([wait, one]) => (after.has(wait) ? [] : [one])),
    comes: [...after].flatMap(([wait, one]) => (before.has(wait) ? [] : [one])),
  };
});
