import { keepFile, mostFileBytes, openFile, runUseCase, UseCaseError } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** POST a file's bytes with ?name=: it is kept with the workspace. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const name = new URL(request.url).searchParams.get("name") ?? "";
    if (Number(request.headers.get("content-length") ?? 0) > mostFileBytes)
      throw new UseCaseError("too-large", `${name} is larger than the 10 MB a file may have. Add a link to it.`, 413);
    const bytes = new Uint8Array(await request.arrayBuffer());
    return Response.json(await runUseCase(member, keepFile as never, { name, bytes }));
  });
}

/** GET ?id=: the file, to be saved. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const id = new URL(request.url).searchParams.get("id") ?? "";
    const file = (await runUseCase(member, openFile as never, { id })) as {
      name: string;
      type: string;
      bytes: Uint8Array;
    };
    return fileResponse(Buffer.from(file.bytes), file.name, file.type);
  });
}
