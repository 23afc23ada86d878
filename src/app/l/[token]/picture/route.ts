import { openLinkPicture, workspaceReady } from "@/server";
import { linkAnswer } from "../linkAnswer";

export const dynamic = "force-dynamic";

/** GET: the first page of what a link shows, to be put into other pages. */
export async function GET(
  request: Request,
  { params }: { readonly params: Promise<{ readonly token: string }> },
): Promise<Response> {
  const { token } = await params;
  return linkAnswer(
    request,
    async () => {
      await workspaceReady();
      return openLinkPicture(token);
    },
    true,
  );
}
