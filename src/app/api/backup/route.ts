import { fileUseCases, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { bytes } = await runUseCase(member, fileUseCases.backup, {});
    return fileResponse(
      Buffer.from(bytes),
      `lucid-lane-${new Date().toISOString().slice(0, 10)}.backup`,
      "application/gzip",
    );
  });
}
