import { fileUseCases, runUseCase } from "@/server";
import { answer, bookletResponse, jsonOf } from "../../answer";

export const dynamic = "force-dynamic";

/** POST { version, log, kind: pdf|docx|html|md, filters }: what a log says of a version. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const input = (await jsonOf(request, 4 * 1024 * 1024)) as { readonly kind?: unknown } | null;
    return bookletResponse(await runUseCase(member, fileUseCases.reportFile, input), input?.kind);
  });
}
