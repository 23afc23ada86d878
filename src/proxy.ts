import { randomBytes } from "node:crypto";
import { type NextRequest, NextResponse } from "next/server";
import { contentPolicy, whyForeign } from "@/server/kernel/access";
import { sessionCookie, signsIn } from "@/server/kernel/signInMode";

/**
 * Pages hold nothing but what asks for data, which is answered to members only; who carries no session at all is led to the door at once.
 */
const mayEnter = ({ nextUrl, cookies }: NextRequest): boolean =>
  nextUrl.pathname === "/sign-in" || cookies.getAll().some(({ name }) => name.endsWith(sessionCookie));

/** Before each page: is it asked for by a name of ours, and which scripts may run in it. Data has the same door in `api/answer.ts`, what links lead to in `l/`. */
export function proxy(request: NextRequest): NextResponse {
  const foreign = whyForeign({ method: request.method, header: (name) => request.headers.get(name) });
  if (foreign) return new NextResponse(`${foreign}\n`, { status: 403, headers: { "content-type": "text/plain" } });
  if (signsIn() && !mayEnter(request)) {
    const { pathname, search } = request.nextUrl;
    const door = new URL("/sign-in", request.url);
    if (pathname !== "/") door.searchParams.set("to", `${pathname}${search}`);
    return NextResponse.redirect(door);
  }
  const nonce = randomBytes(16).toString("base64");
  const policy = contentPolicy(nonce, process.env.NODE_ENV === "development");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}

export const config = { matcher: ["/((?!api/|l/|_next/static|_next/image|icon.svg).*)"] };
