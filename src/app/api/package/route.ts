import { downloadPackage, runUseCase } from "@/server";
import { answer, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

/** GET ?handoff=: the package's bytes, as they were made. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const handoff = new URL(request.url).searchParams.get("handoff") ?? "";
    const { bytes, name } = (await runUseCase(member, downloadPackage as never, { handoff })) as {
      bytes: Uint8Array<ArrayBuffer>;
      name: string;
    };
    return fileResponse(bytes, name, "application/zip");
  });
}
