import {
  becomeOwner,
  changePassword,
  endOwnSession,
  ownSessions,
  signsIn,
  takeInvitation,
  toElsewhere,
  UseCaseError,
} from "@/server";
import { answerAnyone, jsonOf, originOf } from "../../answer";

export const dynamic = "force-dynamic";

const mostBytes = 8 * 1024;

/** What a member does about their own access. */
const acts: { readonly [act: string]: (origin: string, headers: Headers, input: unknown) => Promise<Response> } = {
  /** {code, name, email, password}: the very first member. */
  owner: becomeOwner,
  /** {token, password}: takes an invitation up. */
  invitation: takeInvitation,
  /** {before, password}: another password. */
  password: changePassword,
  /** {id}: ends one of one's own sessions. */
  end: async (origin, headers, input) => {
    await endOwnSession(origin, headers, String((input as { id?: unknown }).id));
    return Response.json({});
  },
};

const looks: { readonly [look: string]: (request: Request) => Promise<Response> } = {
  /** One's own sessions. */
  sessions: async (request) => Response.json({ sessions: await ownSessions(originOf(request), request.headers) }),
  /** Leads to the provider that vouches for members. */
  elsewhere: (request) => {
    const to = new URL(request.url).searchParams.get("to") ?? "/";
    return toElsewhere(originOf(request), request.headers, ownPath(to));
  },
};

/** A path of ours, whatever was asked for: nobody is led to another site. */
const ownPath = (to: string): string => (/^\/(?![/\\])[^\s\\]*$/.test(to) ? to : "/");

interface Place {
  readonly params: Promise<{ readonly act: string }>;
}
async function handle(request: Request, { params }: Place): Promise<Response> {
  return answerAnyone(request, async () => {
    const { act } = await params;
    const known = request.method === "POST" ? acts : looks;
    const one = signsIn() && Object.hasOwn(known, act) ? known[act] : undefined;
    if (!one) throw new UseCaseError("not-found", "There is nothing here.", 404);
    return request.method === "POST"
      ? (one as (typeof acts)[string])(originOf(request), request.headers, await jsonOf(request, mostBytes))
      : (one as (typeof looks)[string])(request);
  });
}

export { handle as GET, handle as POST };
