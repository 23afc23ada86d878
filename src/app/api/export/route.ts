import { exportBpmn, exportSheet, exportSvg, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?version=&format=bpmn|svg|csv[&revision=][&diagram=][&name=]. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { searchParams } = new URL(request.url);
    const revision = searchParams.get("revision");
    const input = {
      version: searchParams.get("version") ?? "",
      ...(revision && { revision: Number(revision) }),
      ...(searchParams.get("diagram") && { diagram: searchParams.get("diagram") }),
    };
    const name = searchParams.get("name") ?? "process";
    if (searchParams.get("format") === "svg") {
      const { text } = (await runUseCase(member, exportSvg as never, input)) as { text: string };
      return fileResponse(text, `${name}.svg`, "image/svg+xml; charset=utf-8");
    }
    if (searchParams.get("format") === "csv") {
      const process = searchParams.get("process");
      const { text } = (await runUseCase(member, exportSheet as never, { ...input, ...(process && { process }) })) as {
        text: string;
      };
      return fileResponse(text, `${name}.csv`, "text/csv; charset=utf-8");
    }
    const { text } = (await runUseCase(member, exportBpmn as never, input)) as { text: string };
    return fileResponse(text, `${name}.bpmn`, "application/xml; charset=utf-8");
  });
}
