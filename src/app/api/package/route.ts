import { fileUseCases, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?version=&handoff=: the package's bytes, as they were made. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const { bytes, name } = await runUseCase(member, fileUseCases.downloadPackage, {
      version: searchParams.get("version") ?? "",
      handoff: searchParams.get("handoff") ?? "",
    });
    return fileResponse(Buffer.from(bytes), name, "application/zip");
  });
}
