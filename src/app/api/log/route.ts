import { fileUseCases, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?version=&run=&as=xes|csv&anonymised=1: what has happened in the cases of a run. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const { text, name, type } = await runUseCase(member, fileUseCases.downloadLog, {
      version: searchParams.get("version") ?? "",
      run: searchParams.get("run") ?? "",
      as: searchParams.get("as") ?? "xes",
      isAnonymised: searchParams.get("anonymised") === "1",
    });
    return fileResponse(text, name, type);
  });
}
