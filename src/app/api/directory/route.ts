import { fileUseCases, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?format=csv|json: the directory as a file. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const format = new URL(request.url).searchParams.get("format") === "json" ? "json" : "csv";
    const { text } = await runUseCase(member, fileUseCases.exportDirectory, { format });
    const type = format === "json" ? "application/json" : "text/csv; charset=utf-8";
    return fileResponse(text, `directory.${format}`, type);
  });
}
