import { fileUseCases, runUseCase } from "@/server";
import { answer, bytesOf } from "../answer";

export const dynamic = "force-dynamic";
const mostBytes = 64 * 1024 * 1024;

/** POST a file's bytes with ?name= and ?area=: it becomes a process. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const bytes = await bytesOf(request, mostBytes, "The file");
    return Response.json(
      await runUseCase(member, fileUseCases.importFile, {
        name: searchParams.get("name") ?? "file",
        area: searchParams.get("area") ?? "",
        bytes,
        // Reading a long list takes seconds; whoever gives up meanwhile is heard.
        signal: request.signal,
      }),
    );
  });
}
