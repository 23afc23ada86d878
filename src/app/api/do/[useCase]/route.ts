import { runUseCase, type UseCase, UseCaseError, useCases } from "@/server";
import { answer, jsonOf } from "../../answer";

/** A pasted list of thousands of rows, or a large model merged, is one request. */
const mostRequestBytes = 96 * 1024 * 1024;

export const dynamic = "force-dynamic";

/** POST /api/do/NAME with the use case's input as JSON. */
export async function POST(request: Request, { params }: { params: Promise<{ useCase: string }> }): Promise<Response> {
  return answer(request, async (member) => {
    const { useCase: name } = await params;
    if (!Object.hasOwn(useCases, name))
      throw new UseCaseError("no-such-use-case", `There is no use case "${name}".`, 404);
    const useCase = useCases[name as keyof typeof useCases] as UseCase<unknown, unknown>;
    const input = await jsonOf(request, mostRequestBytes);
    return Response.json(await runUseCase(member, useCase, input));
  });
}
