import { fileUseCases, mostBackupBytes, runUseCase } from "@/server";
import { answer, bytesOf } from "../answer";

export const dynamic = "force-dynamic";

/** POST a backup's bytes: it takes the place of everything there is. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const bytes = await bytesOf(request, mostBackupBytes, "The backup");
    return Response.json(await runUseCase(member, fileUseCases.restore, { bytes }));
  });
}
