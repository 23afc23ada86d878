import { fromElsewhere, providerOf, signsIn, UseCaseError } from "@/server";
import { answerAnyone, originOf } from "../../../../answer";

export const dynamic = "force-dynamic";

/** GET: a member comes back from the provider that vouches for them. */
export async function GET(request: Request): Promise<Response> {
  return answerAnyone(request, async () => {
    if (!signsIn() || !providerOf()) throw new UseCaseError("not-found", "There is nothing here.", 404);
    const answer = await fromElsewhere(originOf(request), request);
    // Its headers cannot be changed; those of a copy can.
    return new Response(answer.body, { status: answer.status, headers: answer.headers });
  });
}
