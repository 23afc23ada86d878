import { type OpenedLink, whyForeign } from "@/server";

/** Nothing of it is indexed, kept on the way, or told to pages it leads to. */
const quiet = {
  "cache-control": "no-store",
  "x-robots-tag": "noindex, nofollow",
  "referrer-policy": "no-referrer",
  "x-content-type-options": "nosniff",
};

/** A page may show itself and run its own search, and nothing else; other pages may not frame it. */
const pagePolicy = "sandbox allow-scripts allow-popups allow-forms; frame-ancestors 'none'";
const formPolicy =
  "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'";

/** What somebody who came by a link is shown, whatever it led to. */
export async function linkAnswer(
  request: Request,
  open: () => Promise<OpenedLink>,
  /** Put into pages of other sites, as a picture is: by which name the server is asked still counts. */
  isEmbedded = false,
): Promise<Response> {
  const header = (name: string) => (isEmbedded && name !== "host" ? null : request.headers.get(name));
  const foreign = whyForeign({ method: request.method, header });
  if (foreign) return page(foreign, 403);
  try {
    const opened = await open();
    switch (opened.kind) {
      case "page":
        return new Response(Buffer.from(opened.html), {
          headers: { ...quiet, "content-type": "text/html; charset=utf-8", "content-security-policy": pagePolicy },
        });
      case "picture":
        return new Response(Buffer.from(opened.svg), {
          headers: {
            ...quiet,
            "content-type": "image/svg+xml; charset=utf-8",
            "content-security-policy": "default-src 'none'; style-src 'unsafe-inline'; font-src data:; sandbox",
          },
        });
      case "password":
        return page(question(opened), opened.waits > 0 ? 429 : opened.isWrong ? 403 : 200);
      case "gone":
        return page("<p>This link opens nothing. It may have expired, or somebody has withdrawn it.</p>", 404);
    }
  } catch (error) {
    console.error(error);
    return page("<p>This cannot be shown now. Try again in a moment.</p>", 500);
  }
}

function question({ isWrong, waits }: OpenedLink & { readonly kind: "password" }): string {
  const told =
    waits > 0
      ? `<p role="alert">That was not it. The next one is looked at in ${waits} seconds.</p>`
      : isWrong
        ? '<p role="alert">That was not it.</p>'
        : "";
  return `<form method="post"><label>Password <input type="password" name="password" autocomplete="current-password" required autofocus></label> <button>Open</button></form>${told}`;
}

const page = (inside: string, status: number) =>
  new Response(
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>Lucid Lane</title><style>body{font:16px/1.5 Verdana,sans-serif;color:#1E2430;background:#F7F4EC;max-width:30rem;margin:3rem auto;padding:0 1rem}input,button{font:inherit;padding:.3rem .5rem}</style></head><body><main><h1>Lucid Lane</h1>${inside}</main></body></html>`,
    {
      status,
      headers: { ...quiet, "content-type": "text/html; charset=utf-8", "content-security-policy": formPolicy },
    },
  );
