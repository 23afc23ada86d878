import { fileUseCases, runUseCase } from "@/server";
import { answer, fileResponse, jsonOf } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?version=&format=bpmn|csv[&revision=][&name=]: a version as a file. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const revision = searchParams.get("revision");
    const input = {
      version: searchParams.get("version") ?? "",
      ...(revision !== null && { revision: Number(revision) }),
    };
    const name = (searchParams.get("name") ?? "process").slice(0, 200);
    if (searchParams.get("format") === "csv") {
      const process = searchParams.get("process");
      const { text } = await runUseCase(member, fileUseCases.exportSheet, {
        ...input,
        ...(process && { process }),
      });
      return fileResponse(text, `${name}.csv`, "text/csv; charset=utf-8");
    }
    const { text } = await runUseCase(member, fileUseCases.exportBpmn, input);
    return fileResponse(text, `${name}.bpmn`, "application/xml; charset=utf-8");
  });
}

const types = { svg: "image/svg+xml; charset=utf-8", png: "image/png", pdf: "application/pdf" };

/** POST { version, format: svg|png|pdf, … }: a picture of a page, or of some of its elements. */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const input = (await jsonOf(request, 4 * 1024 * 1024)) as { format?: string; name?: unknown };
    const { bytes } = await runUseCase(member, fileUseCases.exportPicture, input);
    const format = input.format as keyof typeof types;
    return fileResponse(
      Buffer.from(bytes),
      `${String(input.name ?? "process").slice(0, 200)}.${format}`,
      types[format],
    );
  });
}
