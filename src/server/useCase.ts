import { z } from "zod";
import type { Problem } from "@/core/model";
import { database } from "@/data/database";
import { reading, type Transaction, writing } from "./kernel/act";
import { toldByDatabase } from "./kernel/databaseErrors";
import { unstorableIn } from "./kernel/storable";

/** A person with access. For now there is one, built in; every use case takes who acts all the same. */
export interface Member {
  readonly id: string;
  readonly name: string;
}

/** A "no" a person can read, with the status a route answers with. */
export class UseCaseError extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly status = 400,
    readonly details: readonly Problem[] = [],
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

export const notFound = (what: string) =>
  new UseCaseError("not-found", `${what} is not in this workspace any more.`, 404);

/** Who acts, when, and the transaction that all they read and write is part of. */
export interface Context {
  readonly db: Transaction;
  readonly member: Member;
  readonly now: () => string;
}

/** Who acts, for what takes long between reading and writing and must not keep others waiting. */
export interface Outside {
  readonly member: Member;
  readonly now: () => string;
  readonly read: <Output>(run: (context: Context) => Promise<Output>) => Promise<Output>;
  readonly write: <Output>(run: (context: Context) => Promise<Output>) => Promise<Output>;
  /** The same while nobody else writes anything. */
  readonly writeWhole: <Output>(run: (context: Context) => Promise<Output>) => Promise<Output>;
}

interface Inputs<Input> {
  readonly input: z.ZodType<Input>;
}
/** Reads one state. */
interface Query<Input, Output> extends Inputs<Input> {
  readonly kind: "query";
  readonly run: (context: Context, input: Input) => Promise<Output>;
}
/** Reads and writes one state, all or none. */
export interface Act<Input, Output> extends Inputs<Input> {
  readonly kind: "act";
  readonly run: (context: Context, input: Input) => Promise<Output>;
}
interface LongAct<Input, Output> extends Inputs<Input> {
  readonly kind: "long";
  readonly run: (outside: Outside, input: Input) => Promise<Output>;
}
export type UseCase<Input, Output> = Query<Input, Output> | Act<Input, Output> | LongAct<Input, Output>;

type Run<Input, Output> = (context: Context, input: Input) => Promise<Output>;

/** Who may, is it valid, then do it: the one shape of everything the server does. */
export const useCase = <Input, Output>(input: z.ZodType<Input>, run: Run<Input, Output>): Act<Input, Output> => ({
  kind: "act",
  input,
  run,
});

/** The same for what only reads. */
export const query = <Input, Output>(input: z.ZodType<Input>, run: Run<Input, Output>): Query<Input, Output> => ({
  kind: "query",
  input,
  run,
});

/** The same for what works for long between reading and writing. */
export const longUseCase = <Input, Output>(
  input: z.ZodType<Input>,
  run: (outside: Outside, input: Input) => Promise<Output>,
): LongAct<Input, Output> => ({ kind: "long", input, run });

export const localMember: Member = { id: "member-local", name: "Mara Aldous" };

const now = () => new Date().toISOString();

/** Runs a use case for a member, on input that nobody has looked at yet. */
export async function runUseCase<Output>(
  member: Member,
  useCase: UseCase<never, Output>,
  input: unknown,
): Promise<Output> {
  const unstorable = unstorableIn(input);
  if (unstorable)
    throw new UseCaseError(
      "unstorable-text",
      `There is ${unstorable.what} in ${unstorable.path.slice(0, 200) || "the request"}, which cannot be kept. Take it out, then try again.`,
      400,
    );
  const parsed = useCase.input.safeParse(input);
  if (!parsed.success)
    throw new UseCaseError("bad-input", `This request is not valid: ${z.prettifyError(parsed.error).slice(0, 2000)}`);
  try {
    const { db, wrote } = await database();
    const read = <Result>(run: (context: Context) => Promise<Result>) =>
      reading(db, (transaction) => run({ db: transaction, member, now }));
    const write = async <Result>(run: (context: Context) => Promise<Result>, workspace?: "alone") => {
      const result = await writing(db, (transaction) => run({ db: transaction, member, now }), workspace);
      wrote();
      return result;
    };
    switch (useCase.kind) {
      case "query":
        return await read((context) => useCase.run(context, parsed.data));
      case "long":
        return await useCase.run({ member, now, read, write, writeWhole: (run) => write(run, "alone") }, parsed.data);
      case "act":
        return await write((context) => useCase.run(context, parsed.data));
    }
  } catch (error) {
    const told = error instanceof UseCaseError ? undefined : toldByDatabase(error);
    if (!told) throw error;
    throw new UseCaseError(told.code, told.message, told.status, [], { cause: error });
  }
}
