import { randomBytes, timingSafeEqual } from "node:crypto";
import { and, desc, eq, gt } from "drizzle-orm";
import { z } from "zod";
import { name } from "@/contract/inputs";
import { password, type SessionRow } from "@/contract/members";
import { say } from "@/core/messages";
import { database } from "@/data/database";
import { invitations, members, secrets, signInAccounts, signInSessions, signInUsers } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { note } from "../kernel/audit";
import { hashOfToken } from "../kernel/tokens";
import { type Member, ownAct, UseCaseError } from "../kernel/useCase";
import { memberById } from "./members";
import { noteSigning } from "./noteSigning";
import { ownerCode, ownerCodeKey } from "./ownerCode";
import { authFor, providerId } from "./signIn";
import { countTry, forgetTries } from "./tries";

/** A password is worked on for a tenth of a second and in 16 MB: so many at once, and so many that wait. */
const mostAtOnce = 2;
const mostWaiting = 30;
const shared = globalThis as unknown as { laneSigning?: { running: number; readonly waiting: (() => void)[] } };

async function oneOfFew<Output>(run: () => Promise<Output>): Promise<Output> {
  shared.laneSigning ??= { running: 0, waiting: [] };
  const here = shared.laneSigning;
  if (here.running >= mostAtOnce) {
    if (here.waiting.length >= mostWaiting)
      throw new UseCaseError("busy", "Too many sign in at this moment. Try again in a few seconds.", 503);
    await new Promise<void>((resolve) => here.waiting.push(resolve));
  } else here.running++;
  try {
    return await run();
  } finally {
    const next = here.waiting.shift();
    if (next) next();
    else here.running--;
  }
}

const given = z.object({ email: z.string().max(200), password: z.string().max(1_000) });

/**
 * Signs in by address and password. Whether an address is known cannot be told from the answer, nor from how long it takes. A try is
 * counted before it is looked at; while one has to wait none is looked at, not even the right one.
 * @returns the answer that carries the session's cookie
 * @throws not-signed-in, or try-later with the seconds to wait
 */
export async function signIn(origin: string, headers: Headers, input: unknown): Promise<Response> {
  const parsed = given.safeParse(input);
  if (!parsed.success) throw new UseCaseError("bad-input", "An address and a password are needed.", 400);
  const { email, password: tried } = parsed.data;
  const { locked, waits } = await countTry(email);
  if (locked > 0) throw tryLater(locked);
  const auth = await authFor(origin);
  const body = { email: email.trim().toLowerCase(), password: tried };
  const answer = await oneOfFew(() => auth.api.signInEmail({ body, headers, asResponse: true }));
  if (answer.status >= 500) throw new Error(`Signing in failed: ${answer.status}.`);
  if (!answer.ok) {
    await noteFailure(email);
    throw waits > 0
      ? tryLater(waits)
      : new UseCaseError("not-signed-in", "This address and password do not go together.", 403);
  }
  await forgetTries(email);
  return cookiesOf(answer);
}

/** What is wrong with what was given, in words for who gave it. */
const amiss = ({ issues }: z.ZodError) =>
  new UseCaseError("bad-input", [...new Set(issues.map(({ message }) => message))].join(" "), 400);

const tryLater = (seconds: number) =>
  new UseCaseError(
    "try-later",
    say`Too many wrong passwords in a row. The next one is looked at in ${seconds === 1 ? say`1 second` : say`${seconds} seconds`}; an owner can send a new link.`,
    429,
  );

/** Only the cookies of an answer: what else the package tells of a member stays here. */
const cookiesOf = (answer: Response): Response => {
  const response = Response.json({});
  for (const cookie of answer.headers.getSetCookie()) response.headers.append("set-cookie", cookie);
  return response;
};

/** In the name of who has that address; of one that nobody has nothing is noted, or whoever tries many would fill the list. */
async function noteFailure(email: string): Promise<void> {
  const { db } = await database();
  const [known] = await db
    .select({ id: signInUsers.id })
    .from(signInUsers)
    .where(eq(signInUsers.email, email.trim().toLowerCase()));
  if (known) await noteSigning({ member: known.id, act: "signInFailed", isRefused: true });
}

/** Who a request comes from, by its session; undefined where it has none that holds. */
export async function memberInSession(origin: string, headers: Headers): Promise<Member | undefined> {
  const auth = await authFor(origin);
  const session = await auth.api.getSession({ headers }).catch(() => null);
  return session ? memberById(session.user.id) : undefined;
}

export async function signOut(origin: string, headers: Headers): Promise<Response> {
  const auth = await authFor(origin);
  const session = await auth.api.getSession({ headers }).catch(() => null);
  const answer = await auth.api.signOut({ headers, asResponse: true });
  if (session) await noteSigning({ member: session.user.id, act: "signedOut" });
  return cookiesOf(answer);
}

const owner = z.object({
  code: z.string().max(100),
  name,
  email: z.email("This is no e-mail address.").max(200).toLowerCase(),
  password,
});

/** The very first member, who owns the workspace. */
export async function becomeOwner(origin: string, headers: Headers, input: unknown): Promise<Response> {
  const parsed = owner.safeParse(input);
  if (!parsed.success) throw amiss(parsed.error);
  const asked = parsed.data;
  const { locked } = await countTry("first owner");
  if (locked > 0) throw tryLater(locked);
  const [code, tried] = [Buffer.from(await ownerCode()), Buffer.from(asked.code.trim())];
  if (code.length !== tried.length || !timingSafeEqual(code, tried))
    throw new UseCaseError("wrong-code", "This is not the code that was shown when the server was started.", 403);
  const auth = await authFor(origin);
  const kept = await oneOfFew(async () => (await auth.$context).password.hash(asked.password));
  const id = `member-${randomBytes(9).toString("base64url")}`;
  await ownAct("becomeOwner", [{ kind: "workspace" }], async ({ db }) => {
    await lock(db, "home");
    if ((await db.select({ id: signInUsers.id }).from(signInUsers).limit(1)).length > 0)
      throw new UseCaseError("owned", "This workspace has an owner already. Sign in, or ask them for a link.", 409);
    await db.insert(members).values({ id, name: asked.name, seat: "owner" });
    await db.insert(signInUsers).values({ id, name: asked.name, email: asked.email, emailVerified: true });
    await setPassword(db, id, kept);
    await db.delete(secrets).where(eq(secrets.key, ownerCodeKey));
    await note(db, { member: id, act: "becomeOwner", things: [{ kind: "workspace" }] });
  });
  await forgetTries("first owner");
  return signIn(origin, headers, asked);
}

/** The password of a member, which ends every session there is. */
async function setPassword(db: Transaction, id: string, kept: string): Promise<void> {
  await db.delete(signInAccounts).where(eq(signInAccounts.id, `password-${id}`));
  await db
    .insert(signInAccounts)
    .values({ id: `password-${id}`, accountId: id, providerId: "credential", userId: id, password: kept });
  await db.delete(signInSessions).where(eq(signInSessions.userId, id));
}

const invited = z.object({ token: z.string().max(200), password });

/** Takes an invitation up: sets the member's password, and signs in. */
export async function takeInvitation(origin: string, headers: Headers, input: unknown): Promise<Response> {
  const parsed = invited.safeParse(input);
  if (!parsed.success) throw amiss(parsed.error);
  const auth = await authFor(origin);
  const kept = await oneOfFew(async () => (await auth.$context).password.hash(parsed.data.password));
  let email = "";
  await ownAct("takeInvitation", [{ kind: "workspace" }], async ({ db }) => {
    await lock(db, "home");
    const [row] = await db
      .delete(invitations)
      .where(eq(invitations.token, hashOfToken(parsed.data.token)))
      .returning();
    if (!row || Date.parse(row.expiresAt) <= Date.now())
      throw new UseCaseError(
        "no-invitation",
        "This link opens nothing any more: it was used, it is older than three days, or another one was made. Ask an owner for a new one.",
        404,
      );
    const [user] = await db.select().from(signInUsers).where(eq(signInUsers.id, row.member));
    if (!user) throw new UseCaseError("no-invitation", "This member has no access any more. Ask an owner.", 404);
    email = user.email;
    await setPassword(db, row.member, kept);
    await note(db, { member: row.member, act: "takeInvitation", things: [{ kind: "workspace" }] });
  });
  await forgetTries(email);
  return signIn(origin, headers, { email, password: parsed.data.password });
}

const change = z.object({ before: z.string().max(1_000), password });

/** A member's own new password, for the old one; other sessions end. */
export async function changePassword(origin: string, headers: Headers, input: unknown): Promise<Response> {
  const parsed = change.safeParse(input);
  if (!parsed.success) throw amiss(parsed.error);
  const auth = await authFor(origin);
  const session = await auth.api.getSession({ headers });
  if (!session) throw signedOut();
  const { email } = session.user;
  const { locked, waits } = await countTry(email);
  if (locked > 0) throw tryLater(locked);
  const { db } = await database();
  const [account] = await db
    .select()
    .from(signInAccounts)
    .where(eq(signInAccounts.id, `password-${session.user.id}`));
  const { password: work } = await auth.$context;
  const isRight =
    account?.password &&
    (await oneOfFew(() => work.verify({ hash: account.password as string, password: parsed.data.before })));
  if (!isRight)
    throw waits > 0
      ? tryLater(waits)
      : new UseCaseError("not-signed-in", "The password until now is another one.", 403);
  const kept = await oneOfFew(() => work.hash(parsed.data.password));
  await ownAct("changePassword", [], async (context) => {
    await setPassword(context.db, session.user.id, kept);
    await note(context.db, { member: session.user.id, act: "changePassword", things: [{ kind: "workspace" }] });
  });
  await forgetTries(email);
  return signIn(origin, headers, { email, password: parsed.data.password });
}

export const signedOut = () =>
  new UseCaseError("signed-out", "You are not signed in, or not any more. Sign in, then go on.", 401);

/** Leads to the provider elsewhere; what comes back is taken by {@link fromElsewhere}. */
export async function toElsewhere(origin: string, headers: Headers, to: string): Promise<Response> {
  const auth = await authFor(origin);
  const answer = await auth.api.signInSocial({
    body: { provider: providerId, callbackURL: to, errorCallbackURL: "/sign-in" },
    headers,
    asResponse: true,
  });
  const { url } = (await answer.json()) as { url?: string };
  if (!answer.ok || !url)
    throw new UseCaseError(
      "no-provider",
      "The provider that vouches for members does not answer. Sign in with a password, or try again later.",
      502,
    );
  const response = new Response(null, { status: 302, headers: { location: url } });
  for (const cookie of answer.headers.getSetCookie()) response.headers.append("set-cookie", cookie);
  return response;
}

/** Takes what a provider sends somebody back with. */
export const fromElsewhere = async (origin: string, request: Request): Promise<Response> =>
  (await authFor(origin)).handler(request);

/** Sessions of who asks, the newest first. */
export async function ownSessions(origin: string, headers: Headers): Promise<readonly SessionRow[]> {
  const auth = await authFor(origin);
  const session = await auth.api.getSession({ headers });
  if (!session) throw signedOut();
  const { db } = await database();
  const rows = await db
    .select()
    .from(signInSessions)
    .where(and(eq(signInSessions.userId, session.user.id), gt(signInSessions.expiresAt, new Date())))
    .orderBy(desc(signInSessions.createdAt));
  return rows.map((row) => ({
    ...{ id: row.id, at: row.createdAt.toISOString(), agent: row.userAgent ?? "", until: row.expiresAt.toISOString() },
    isThis: row.id === session.session.id,
  }));
}

/** Ends one of the sessions of who asks. */
export async function endOwnSession(origin: string, headers: Headers, id: string): Promise<void> {
  const auth = await authFor(origin);
  const session = await auth.api.getSession({ headers });
  if (!session) throw signedOut();
  await ownAct("endSession", [], async ({ db }) => {
    await db.delete(signInSessions).where(and(eq(signInSessions.id, id), eq(signInSessions.userId, session.user.id)));
    await note(db, { member: session.user.id, act: "endSession", things: [{ kind: "workspace" }] });
  });
}
