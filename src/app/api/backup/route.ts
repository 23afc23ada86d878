import { backup, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { bytes } = (await runUseCase(member, backup as never, {})) as { bytes: Uint8Array<ArrayBuffer> };
    return fileResponse(bytes, `lucid-lane-${new Date().toISOString().slice(0, 10)}.backup`, "application/gzip");
  });
}
