import { mostLogBytes } from "@/contract/evidence";
import { fileUseCases, runUseCase } from "@/server";
import { answer, bytesOf, fileResponse } from "../answer";

export const dynamic = "force-dynamic";

const asked = (request: Request) => {
  const { searchParams } = new URL(request.url);
  const of = (name: string) => searchParams.get(name) ?? "";
  return { of, version: of("version"), log: of("log") };
};

/** What was sent as facts; what is no JSON is none, which the use case refuses in words. */
function factsIn(sent: string): unknown {
  try {
    return JSON.parse(sent);
  } catch {
    return undefined;
  }
}

/** POST a log's bytes, compressed, with ?version=, ?log= (its id), ?name= and ?facts= (JSON). */
export async function POST(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { of, version, log } = asked(request);
    const bytes = await bytesOf(request, mostLogBytes, "The log");
    const facts = factsIn(of("facts"));
    return Response.json(
      await runUseCase(member, fileUseCases.keepLog, { version, log, name: of("name"), facts, bytes }),
    );
  });
}

/** GET ?version=&log=: what was kept of a log. */
export async function GET(request: Request): Promise<Response> {
  return answer(request, async (member) => {
    const { version, log } = asked(request);
    const { bytes, name } = await runUseCase(member, fileUseCases.logContent, { version, log });
    return fileResponse(Buffer.from(bytes), `${name}.log.gz`, "application/gzip");
  });
}
