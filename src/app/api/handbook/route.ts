import { fileUseCases, runUseCase } from "@/server";
import { answer, bookletResponse, jsonOf } from "../answer";

export const dynamic = "force-dynamic";

/** POST { about, kind: pdf|docx|html|md, parts, language, title }: the generated documentation. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const input = (await jsonOf(request, 512 * 1024)) as { readonly kind?: unknown } | null;
    return bookletResponse(await runUseCase(member, fileUseCases.handbookFile, input), input?.kind);
  });
}
