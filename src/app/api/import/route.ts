import { fileUseCases, runUseCase } from "@/server";
import { answer, bytesOf } from "../answer";

export const dynamic = "force-dynamic";
const mostBytes = 64 * 1024 * 1024;

/** POST a file's bytes with ?name= and ?area=: it becomes a process; with ?name= and ?source= a to-be beside that version. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const bytes = await bytesOf(request, mostBytes, "The file");
    const name = searchParams.get("name") ?? "file";
    // Reading a long list takes seconds; whoever gives up meanwhile is heard.
    const { signal } = request;
    const source = searchParams.get("source");
    return Response.json(
      source === null
        ? await runUseCase(member, fileUseCases.importFile, {
            name,
            area: searchParams.get("area") ?? "",
            bytes,
            signal,
          })
        : await runUseCase(member, fileUseCases.importToBe, { source, name, bytes, signal }),
    );
  });
}
