import { answerProgram, describedInterface, memberOfKey, UseCaseError } from "@/server";
import { answerAnyone, jsonOf } from "../../answer";

export const dynamic = "force-dynamic";

const mostBytes = 4 * 1024 * 1024;

/** What other programs ask for, with their key; `openapi.json` says what there is. */
async function handle(request: Request, { params }: { params: Promise<{ path: string[] }> }): Promise<Response> {
  return answerAnyone(request, async () => {
    const { path } = await params;
    if (request.method === "GET" && path.join("/") === "openapi.json")
      return Response.json(describedInterface(`http://${request.headers.get("host") ?? "localhost"}`));
    const key = /^Bearer (.+)$/i.exec(request.headers.get("authorization") ?? "")?.[1];
    const member = key ? await memberOfKey(key) : undefined;
    if (!member)
      throw new UseCaseError("no-key", "This needs a key that is not withdrawn: Authorization: Bearer KEY.", 401);
    const body = request.method === "POST" ? await jsonOf(request, mostBytes) : undefined;
    const act = request.headers.get("idempotency-key") ?? undefined;
    return Response.json(await answerProgram(member, request.method, path, body, act));
  });
}

export { handle as GET, handle as POST };
