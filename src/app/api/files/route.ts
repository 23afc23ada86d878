import { fileUseCases, mostFileBytes, runUseCase } from "@/server";
import { answer, bytesOf, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** POST a file's bytes with ?name=: it is kept with the workspace. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const name = new URL(request.url).searchParams.get("name") ?? "";
    const bytes = await bytesOf(request, mostFileBytes, name || "The file");
    return Response.json(await runUseCase(member, fileUseCases.keepFile, { name, bytes }));
  });
}

/** GET ?id=: the file, to be saved. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const id = new URL(request.url).searchParams.get("id") ?? "";
    const file = await runUseCase(member, fileUseCases.openFile, { id });
    return fileResponse(Buffer.from(file.bytes), file.name, file.type);
  });
}
