import { z } from "zod";
import type { Contract, Thing } from "@/contract";
import { say, term } from "@/core/messages";
import { database } from "@/data/database";
import { reading, type Transaction, writing } from "./act";
import { note } from "./audit";
import { toldByDatabase } from "./databaseErrors";
import { tell } from "./events";
import { localMember, type Member, needsRight } from "./rights";
import { unstorableIn } from "./storable";
import { askedTogether } from "./together";
import { notFound, UseCaseError } from "./useCaseError";
import { NotWorkedOut, workOut } from "./workedOut";

export { localMember, type Member, notFound, UseCaseError };

/** Who acts, when, and the transaction that all they read and write is part of. */
export interface Context {
  readonly db: Transaction;
  readonly member: Member;
  readonly now: () => string;
  /** When it was asked for: the same however often the act has to begin again. */
  readonly asked: string;
  /** Whether what takes long is waited for inside the act (kernel/workedOut). */
  readonly waits: boolean;
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

interface Promised<Given, Output> {
  readonly contract: Contract<never, Given, Output>;
}
/** Reads one state. */
interface Query<Given, Output> extends Promised<Given, Output> {
  readonly kind: "query";
  /** Many windows ask it at once, and its answer is the same for every member who may ask. */
  readonly isShared?: true;
  run(context: Context, input: Given): Promise<Output>;
}
/** Reads and writes one state, all or none. */
export interface Act<Given, Output> extends Promised<Given, Output> {
  readonly kind: "act";
  run(context: Context, input: Given): Promise<Output>;
}
interface LongAct<Given, Output> extends Promised<Given, Output> {
  readonly kind: "long";
  run(outside: Outside, input: Given): Promise<Output>;
}
export type UseCase<Given, Output> = Query<Given, Output> | Act<Given, Output> | LongAct<Given, Output>;

type Run<Given, Output> = (context: Context, input: Given) => Promise<Output>;

/** Who may, is it valid, then do it: the one shape of everything the server does. */
export const useCase = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  run: Run<Given, Output>,
): Act<Given, Output> => ({ kind: "act", contract: contract as never, run });

/** The same for what only reads. */
export const query = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  run: Run<Given, Output>,
): Query<Given, Output> => ({ kind: "query", contract: contract as never, run });

/** The same for what many windows follow at once: answered together (kernel/together), and alike for every member. */
export const followedQuery = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  run: Run<Given, Output>,
): Query<Given, Output> => ({ ...query(contract, run), isShared: true });

/** The same for what works for long between reading and writing. */
export const longUseCase = <Sent, Given, Output>(
  contract: Contract<Sent, Given, Output>,
  run: (outside: Outside, input: Given) => Promise<Output>,
): LongAct<Given, Output> => ({ kind: "long", contract: contract as never, run });

const now = () => new Date().toISOString();

/** After so many beginnings an act keeps what it holds while it waits: others have changed each state it began on. */
const mostBeginnings = 5;

/** Does an act that may need what takes long to work out: that is done between two beginnings of it, with nothing held. */
async function onceWorkedOut<Output>(act: (waits: boolean) => Promise<Output>): Promise<Output> {
  for (let beginning = 1; ; beginning++) {
    try {
      return await act(beginning > mostBeginnings);
    } catch (error) {
      if (!(error instanceof NotWorkedOut)) throw error;
      await workOut(error.work);
    }
  }
}

/** How a member's acts are done: each one transaction, begun again where it has to be. */
async function outsideFor(
  member: Member,
  by: string,
  things: readonly Thing[] | undefined,
  isOwn = false,
): Promise<Outside> {
  const { db, wrote } = await database();
  const asked = now();
  // An act that writes several times is one line of what was done.
  let isNoted = isOwn;
  const read = <Result>(run: (context: Context) => Promise<Result>) =>
    onceWorkedOut((waits) => reading(db, (transaction) => run({ db: transaction, member, now, asked, waits })));
  const write = async <Result>(run: (context: Context) => Promise<Result>, workspace?: "alone") => {
    const result = await onceWorkedOut((waits) =>
      writing(
        db,
        async (transaction) => {
          const output = await run({ db: transaction, member, now, asked, waits });
          // Who only looks changes nothing that others would have to look at again.
          if (things !== undefined) await tell(transaction, by, things);
          if (things !== undefined && !isNoted) await note(transaction, { member: member.id, act: by, things });
          return output;
        },
        workspace,
      ),
    );
    isNoted = true;
    wrote();
    return result;
  };
  return { member, now, read, write: (run) => write(run), writeWhole: (run) => write(run, "alone") };
}

/** What the server does of its own accord, with nobody waiting; `by` and `things` say to windows what it was. */
export const ownAct = async (
  by: string,
  things: readonly Thing[],
  run: (context: Context) => Promise<void>,
): Promise<void> => (await outsideFor(localMember, by, things, true)).write(run);

/** That somebody tried what they may not is known afterwards too. */
const noteRefusal = async (member: Member, act: string, things: readonly Thing[]): Promise<void> =>
  ownAct(act, [], async ({ db }) => note(db, { member: member.id, act, things, isRefused: true }));

/** Runs a use case for a member, on input that nobody has looked at yet. */
export async function runUseCase<Given, Output>(
  member: Member,
  useCase: UseCase<Given, Output>,
  input: unknown,
): Promise<Output> {
  const unstorable = unstorableIn(input);
  if (unstorable)
    throw new UseCaseError(
      "unstorable-text",
      say`There is ${term(unstorable.what)} in ${unstorable.path.slice(0, 200) || term("the request")}, which cannot be kept. Take it out, then try again.`,
      400,
    );
  const parsed = useCase.contract.input.safeParse(input);
  if (!parsed.success)
    throw new UseCaseError("bad-input", `This request is not valid: ${z.prettifyError(parsed.error).slice(0, 2000)}`);
  const given = parsed.data;
  const { name, right } = useCase.contract;
  const things = useCase.contract.on(given);
  try {
    await needsRight(member, useCase.contract, given);
  } catch (error) {
    if (right !== "read" && error instanceof UseCaseError) await noteRefusal(member, name, things);
    throw error;
  }
  try {
    const outside = await outsideFor(member, name, right === "read" ? undefined : things);
    switch (useCase.kind) {
      case "query": {
        const answer = () => outside.read((context) => useCase.run(context, given));
        return useCase.isShared ? await askedTogether(`${name} ${JSON.stringify(given)}`, answer) : await answer();
      }
      case "long":
        return await useCase.run(outside, given);
      case "act":
        return await outside.write((context) => useCase.run(context, given));
    }
  } catch (error) {
    const told = error instanceof UseCaseError ? undefined : toldByDatabase(error);
    if (!told) throw error;
    throw new UseCaseError(told.code, told.message, told.status, [], { cause: error });
  }
}
