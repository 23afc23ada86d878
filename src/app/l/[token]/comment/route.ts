import { commentByLink, openCommentPage, workspaceReady } from "@/server";
import { bytesOf } from "../../../api/answer";
import { linkAnswer } from "../linkAnswer";

export const dynamic = "force-dynamic";

interface Place {
  readonly params: Promise<{ readonly token: string }>;
}

/** Which element it is about; none: the whole. */
const ofWhat = (request: Request) => new URL(request.url).searchParams.get("of") ?? "";

/** GET ?of=: what was said of it by this link, and a form to say more. */
export async function GET(request: Request, { params }: Place): Promise<Response> {
  const { token } = await params;
  return linkAnswer(request, async () => {
    await workspaceReady();
    return openCommentPage(token, ofWhat(request));
  });
}

/** POST ?of= id=…&name=…&text=…: keeps it. */
export async function POST(request: Request, { params }: Place): Promise<Response> {
  const { token } = await params;
  return linkAnswer(request, async () => {
    await workspaceReady();
    const sent = new URLSearchParams(new TextDecoder().decode(await bytesOf(request, 65_536, "The request")));
    const field = (name: string) => sent.get(name) ?? "";
    const told = { id: field("id"), name: field("name"), text: field("text"), password: field("password") };
    return commentByLink(token, ofWhat(request), told);
  });
}
