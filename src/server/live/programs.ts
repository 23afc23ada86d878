import { and, eq, sql } from "drizzle-orm";
import { nanoid } from "nanoid";
import { z } from "zod";
import { database } from "@/data/database";
import { liveEvents, runs } from "@/data/schema";
import { type Member, notFound, runUseCase, UseCaseError } from "../kernel/useCase";
import { listWaits, openCase } from "./cases";
import { letHappen } from "./interfering";
import { beginLiveCase } from "./starts";
import { completeWork, listWork } from "./work";

/**
 * What other programs may ask for, one entry each: the routes answer by this list, and the description that the application gives of
 * itself (OpenAPI 3.1) is made from it, so that the two cannot differ.
 */
interface Endpoint {
  readonly method: "get" | "post";
  /** Parts in braces are parameters. */
  readonly path: string;
  readonly name: string;
  readonly does: string;
  readonly input: z.ZodType;
  readonly run: (asked: Asked) => Promise<unknown>;
}

interface Asked {
  readonly member: Member;
  readonly parameters: { readonly [name: string]: string };
  readonly body: never;
  /** The name of what is asked for: asked again by it, it is not done again. */
  readonly act: string;
}

const values = z.record(z.string(), z.unknown()).default({});
const nothing = z.object({});

/** The run of a name, with the version it belongs to. */
async function placeOf({ parameters }: Asked): Promise<{ readonly version: string; readonly run: string }> {
  const { run = "" } = parameters;
  const { db } = await database();
  const [row] = await db.select({ version: runs.version }).from(runs).where(eq(runs.id, run));
  if (!row) throw notFound("This run");
  return { version: row.version, run };
}

/** The cases that got a message already that was sent by this name: sent once more, it reaches those that it did not reach yet. */
async function casesThatHad(run: string, act: string): Promise<ReadonlySet<number>> {
  const { db } = await database();
  const rows = await db
    .selectDistinct({ number: liveEvents.number })
    .from(liveEvents)
    .where(and(eq(liveEvents.run, run), sql`starts_with(${liveEvents.act}, ${`${act} `})`));
  return new Set(rows.map(({ number }) => number));
}

const numberIn = (text: string | undefined): number => {
  const number = Number(text);
  if (!Number.isInteger(number) || number < 1)
    throw new UseCaseError("bad-input", `“${text}” is no number of a case or of its work.`, 400);
  return number;
};

export const endpoints: readonly Endpoint[] = [
  {
    method: "post",
    path: "/runs/{run}/cases",
    name: "beginCase",
    does: "Begins a case with some data.",
    input: z.object({ values }),
    run: async (asked) => {
      const body = asked.body as { values: object };
      return runUseCase(asked.member, beginLiveCase, {
        ...(await placeOf(asked)),
        act: asked.act,
        values: body.values,
      });
    },
  },
  {
    method: "get",
    path: "/runs/{run}/cases/{number}",
    name: "readCase",
    does: "Where a case stands, its data, and what has happened in it.",
    input: nothing,
    run: async (asked) =>
      runUseCase(asked.member, openCase, { ...(await placeOf(asked)), number: numberIn(asked.parameters.number) }),
  },
  {
    method: "post",
    path: "/runs/{run}/messages",
    name: "sendMessage",
    does: "A message from outside, to one case or to all that wait for one of that name. Where none does, it begins a case, if a process begins with it.",
    input: z.object({ name: z.string().min(1).max(500), number: z.number().int().min(1).optional(), values }),
    run: async (asked) => {
      const body = asked.body as { name: string; number?: number; values: object };
      const at = await placeOf(asked);
      const had = new Set(await casesThatHad(at.run, asked.act));
      // Lists end somewhere: what has got it waits no more, so that the next ones are seen.
      for (let isMore = true; isMore; ) {
        const asking = { ...at, kinds: ["message", "signal"], named: body.name };
        const { waits } = await runUseCase(asked.member, listWaits, asking);
        const meant = waits.filter(
          ({ number }) => (body.number === undefined || number === body.number) && !had.has(number),
        );
        for (const { number, wait } of meant) {
          if (had.has(number)) continue;
          const act = `${asked.act} ${number} ${wait}`.slice(0, 100);
          await runUseCase(asked.member, letHappen, { ...at, number, wait, act, values: body.values });
          had.add(number);
        }
        isMore = meant.length > 0;
      }
      if (had.size > 0 || body.number !== undefined) return { delivered: had.size };
      // Nobody under way waits for it: it begins a case, where the process begins with it.
      const beginning = { ...at, act: asked.act, values: body.values, message: body.name };
      try {
        return { delivered: 0, begun: (await runUseCase(asked.member, beginLiveCase, beginning)).number };
      } catch (error) {
        if (error instanceof UseCaseError && error.code === "nothing-waits") return { delivered: 0 };
        throw error;
      }
    },
  },
  {
    method: "get",
    path: "/runs/{run}/work",
    name: "listWork",
    does: "What is to be done in a run, the oldest first.",
    input: nothing,
    run: async (asked) => {
      const { run } = await placeOf(asked);
      return { items: (await runUseCase(asked.member, listWork, { whose: "all", run })).items };
    },
  },
  {
    method: "post",
    path: "/runs/{run}/work/{number}/{wait}",
    name: "completeWork",
    does: "A piece of work is done, with what was filled in.",
    input: z.object({ values, note: z.string().max(2_000).default("") }),
    run: async (asked) => {
      const body = asked.body as { values: object; note: string };
      return runUseCase(asked.member, completeWork, {
        ...(await placeOf(asked)),
        number: numberIn(asked.parameters.number),
        wait: numberIn(asked.parameters.wait),
        act: asked.act,
        ...body,
      });
    },
  },
];

const namesIn = (path: string): string[] => [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name as string);

/** The endpoint of a method and a path, with its parameters. */
export function endpointFor(method: string, parts: readonly string[]) {
  for (const endpoint of endpoints) {
    const wanted = endpoint.path.split("/").slice(1);
    if (endpoint.method !== method.toLowerCase() || wanted.length !== parts.length) continue;
    const parameters: { [name: string]: string } = {};
    const fits = wanted.every((part, at) => {
      const name = /^\{(\w+)\}$/.exec(part)?.[1];
      if (name !== undefined) parameters[name] = parts[at] as string;
      return name !== undefined || part === parts[at];
    });
    if (fits) return { endpoint, parameters };
  }
  return undefined;
}

/** Answers a program. */
export async function answerProgram(
  member: Member,
  method: string,
  parts: readonly string[],
  body: unknown,
  act = nanoid(),
): Promise<unknown> {
  const found = endpointFor(method, parts);
  if (!found)
    throw new UseCaseError("no-such-endpoint", "There is nothing of this method and path. See openapi.json.", 404);
  const parsed = found.endpoint.input.safeParse(body ?? {});
  if (!parsed.success)
    throw new UseCaseError(
      "bad-input",
      `This request is not valid: ${z.prettifyError(parsed.error).slice(0, 2_000)}`,
      400,
    );
  return found.endpoint.run({
    member,
    parameters: found.parameters,
    body: parsed.data as never,
    act: act.slice(0, 80),
  });
}

/** What other programs may ask for, as OpenAPI 3.1, of a server that is reached by this origin. */
export function describedInterface(origin: string): object {
  const paths: { [path: string]: { [method: string]: object } } = {};
  for (const { method, path, name, does, input } of endpoints) {
    const parameters = [
      ...namesIn(path).map((one) => ({
        name: one,
        in: "path",
        required: true,
        schema: one === "run" ? { type: "string" } : { type: "integer", minimum: 1 },
      })),
      ...(method === "post"
        ? [
            {
              name: "Idempotency-Key",
              in: "header",
              required: false,
              description: "Asked once more by the same key, it is not done again.",
              schema: { type: "string", maxLength: 80 },
            },
          ]
        : []),
    ];
    const { $schema: _, ...schema } = z.toJSONSchema(input, { io: "input" });
    paths[path] = {
      ...paths[path],
      [method]: {
        operationId: name,
        summary: does,
        parameters,
        ...(method === "post" && { requestBody: { required: true, content: { "application/json": { schema } } } }),
        responses: {
          "200": { description: "Done.", content: { "application/json": { schema: { type: "object" } } } },
          default: {
            description: "Not done, and why.",
            content: {
              "application/json": {
                schema: {
                  type: "object",
                  properties: {
                    error: {
                      type: "object",
                      properties: { code: { type: "string" }, message: { type: "string" } },
                    },
                  },
                },
              },
            },
          },
        },
      },
    };
  }
  return {
    openapi: "3.1.0",
    info: {
      title: "Lucid Lane, runs",
      version: "1",
      description: "Begin cases, send messages, list and complete work, read a case.",
    },
    servers: [{ url: `${origin}/api/programs` }],
    security: [{ key: [] }],
    components: { securitySchemes: { key: { type: "http", scheme: "bearer" } } },
    paths,
  };
}
