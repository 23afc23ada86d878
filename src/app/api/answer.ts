import { localMember, type Member, UseCaseError, workspaceReady } from "@/server";

/** The one place where a request meets the server: who asks, from where, and what an error looks like. */
export async function answer(request: Request, run: (member: Member) => Promise<Response>): Promise<Response> {
  // A page of another site must not act here in a member's name.
  const site = request.headers.get("sec-fetch-site");
  if (site !== null && site !== "same-origin" && site !== "none") {
    return Response.json(
      { error: { code: "foreign-site", message: "Requests from other sites are not answered." } },
      { status: 403 },
    );
  }
  try {
    await workspaceReady();
    return await run(localMember);
  } catch (error) {
    if (error instanceof UseCaseError) {
      return Response.json(
        { error: { code: error.code, message: error.message, details: error.details } },
        { status: error.status },
      );
    }
    console.error(error);
    const message =
      error instanceof Error && error.name === "FolderInUse"
        ? error.message
        : "Something went wrong on the server. What you did is kept here; try again.";
    return Response.json({ error: { code: "internal", message } }, { status: 500 });
  }
}

export function fileResponse(body: BodyInit, name: string, type: string): Response {
  return new Response(body, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename="${name.replace(/[^A-Za-z0-9._-]/g, "_")}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      "x-content-type-options": "nosniff",
      "content-security-policy": "sandbox",
    },
  });
}
