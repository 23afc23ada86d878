import { openLink, workspaceReady } from "@/server";
import { bytesOf } from "../../api/answer";
import { linkAnswer } from "./linkAnswer";

export const dynamic = "force-dynamic";

interface Place {
  readonly params: Promise<{ readonly token: string }>;
}

/** GET: what a link shows, or the question for its password. */
export async function GET(request: Request, { params }: Place): Promise<Response> {
  const { token } = await params;
  return linkAnswer(request, async () => {
    await workspaceReady();
    return openLink(token);
  });
}

/** POST password=…: the same with a password. */
export async function POST(request: Request, { params }: Place): Promise<Response> {
  const { token } = await params;
  return linkAnswer(request, async () => {
    await workspaceReady();
    const sent = new URLSearchParams(new TextDecoder().decode(await bytesOf(request, 4_096, "The password")));
    return openLink(token, sent.get("password") ?? "");
  });
}
