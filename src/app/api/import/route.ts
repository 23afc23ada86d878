import { importFile, runUseCase } from "@/server";
import { answer, bytesOf } from "../answer";

export const dynamic = "force-dynamic";
const mostBytes = 64 * 1024 * 1024;

/** POST a file's bytes with ?name= and ?area=: it becomes a process. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const bytes = await bytesOf(request, mostBytes, "The file");
    return Response.json(
      await runUseCase(member, importFile as never, {
        name: searchParams.get("name") ?? "file",
        area: searchParams.get("area") ?? "",
        bytes,
        stopped: async () => {
          // Reading a long list takes seconds; whoever gave up meanwhile is heard before anything is kept.
          await new Promise((resolve) => setTimeout(resolve));
          return request.signal.aborted;
        },
      }),
    );
  });
}
