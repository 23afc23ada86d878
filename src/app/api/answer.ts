import { type BookletKind, bookletTypes } from "@/core/booklet";
import { say, term } from "@/core/messages";
import {
  type Member,
  memberInSession,
  memberSaid,
  signedOut,
  signsIn,
  UseCaseError,
  whatHappened,
  whyForeign,
  workspaceReady,
} from "@/server";

/** What is answered to anybody who asks from here: the door of the server, and what an error looks like. */
export async function answerAnyone(request: Request, run: () => Promise<Response>): Promise<Response> {
  const foreign = whyForeign({ method: request.method, header: (name) => request.headers.get(name) });
  if (foreign) return refusal({ code: "foreign-site", message: foreign, status: 403, details: [] });
  try {
    await workspaceReady();
    const response = await run();
    // Nobody's content stays in a cache on the way, or in a browser that others use after.
    response.headers.set("cache-control", "no-store, no-transform");
    return response;
  } catch (error) {
    return refusal(whatHappened(error));
  }
}

/** The one place where a member's request meets the server: who asks, by the session or, where nobody signs in, as it says. */
export const answer = (request: Request, run: (member: Member) => Promise<Response>): Promise<Response> =>
  answerAnyone(request, async () => run(await memberOf(request)));

async function memberOf(request: Request): Promise<Member> {
  if (!signsIn()) return memberSaid(memberIn(request));
  const member = await memberInSession(originOf(request), request.headers);
  if (!member) throw signedOut();
  return member;
}

/** Whether whoever asked may still: of a stream that lasts. */
export const mayStillAsk = (request: Request): Promise<boolean> =>
  memberOf(request).then(
    () => true,
    () => false,
  );

/** Where browsers find this server: as they asked for it, or where something stands before it, as that is called (`LANE_ORIGIN`). */
export const originOf = (request: Request): string =>
  process.env.LANE_ORIGIN?.replace(/\/$/, "") || `http://${request.headers.get("host") ?? "localhost"}`;

/** Who a window says it is (see `ui/shell/member`). */
export const memberCookie = "lane-member";
const memberIn = (request: Request): string | undefined =>
  request.headers
    .get("cookie")
    ?.split(/;\s*/)
    .map((one) => one.split("="))
    .flatMap(([name, value]) => (name === memberCookie && value ? [decodeURIComponent(value)] : []))[0];

const refusal = ({ status, ...error }: ReturnType<typeof whatHappened>): Response =>
  Response.json({ error }, { status, headers: { "cache-control": "no-store" } });

/** The body of a request as JSON, and nothing else. */
export async function jsonOf(request: Request, mostBytes: number): Promise<unknown> {
  const type = (request.headers.get("content-type") ?? "").split(";")[0]?.trim().toLowerCase();
  if (type !== "application/json")
    throw new UseCaseError("not-json", "This is answered for the content type application/json only.", 415);
  const bytes = await bytesOf(request, mostBytes, "The request");
  try {
    return JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(bytes));
  } catch {
    throw new UseCaseError("bad-json", "The request is not valid JSON.");
  }
}

/** The body of a request, counted while it comes: what is too large is not waited for. */
export async function bytesOf(request: Request, mostBytes: number, what: string): Promise<Uint8Array> {
  const tooLarge = () =>
    new UseCaseError(
      "too-large",
      say`${term(what)} is larger than the ${Math.round(mostBytes / 1024 / 1024)} MB that are taken. Send a smaller one.`,
      413,
    );
  if (Number(request.headers.get("content-length") ?? 0) > mostBytes) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.length;
    if (size > mostBytes) {
      await reader?.cancel().catch(() => undefined);
      throw tooLarge();
    }
    chunks.push(part.value);
  }
  return new Uint8Array(Buffer.concat(chunks));
}

export function fileResponse(body: BodyInit, name: string, type: string): Response {
  return new Response(body, {
    headers: {
      "content-type": type,
      "content-disposition": `attachment; filename="${name.replace(/[^A-Za-z0-9._-]/g, "_")}"; filename*=UTF-8''${encodeURIComponent(whole(name))}`,
      "x-content-type-options": "nosniff",
      "content-security-policy": "sandbox",
    },
  });
}

/** A document that was made, under its name. */
export function bookletResponse(made: { readonly name: string; readonly bytes: Uint8Array }, kind: unknown): Response {
  const ending = kind as BookletKind;
  return fileResponse(Buffer.from(made.bytes), `${made.name}.${ending}`, bookletTypes[ending]);
}

/** A name without halves of characters, which cannot be sent. */
const whole = (name: string) => name.replace(/[\uD800-\uDFFF]/gu, "_");
