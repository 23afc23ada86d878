import { hasOwner, memberInSession, providerOf, signedOut, signIn, signOut, signsIn } from "@/server";
import { answerAnyone, jsonOf, originOf } from "../answer";

export const dynamic = "force-dynamic";

const mostBytes = 8 * 1024;

/** GET: whether members sign in here and how, and who is signed in. */
export async function GET(request: Request): Promise<Response> {
  return answerAnyone(request, async () => {
    if (!signsIn()) return Response.json({ signsIn: false });
    const member = await memberInSession(originOf(request), request.headers);
    return Response.json({
      signsIn: true,
      isOwned: await hasOwner(),
      provider: providerOf()?.name ?? null,
      member: member ? { id: member.id, name: member.name } : null,
    });
  });
}

/** POST {email, password}: signs in. */
export async function POST(request: Request): Promise<Response> {
  return answerAnyone(request, async () => {
    if (!signsIn()) throw signedOut();
    return signIn(originOf(request), request.headers, await jsonOf(request, mostBytes));
  });
}

/** DELETE: signs out. */
export async function DELETE(request: Request): Promise<Response> {
  return answerAnyone(request, () => signOut(originOf(request), request.headers));
}
