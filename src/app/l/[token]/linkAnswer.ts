import { randomBytes } from "node:crypto";
import { escapeAttribute, escapeText } from "@/core/xml";
import { type CommentPage, type OpenedLink, whyForeign } from "@/server";
import { languageFor } from "@/ui/messages/languages";
import { wordsIn } from "@/ui/messages/wordsIn";

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
  open: () => Promise<OpenedLink | CommentPage>,
  /** Put into pages of other sites, as a picture is: by which name the server is asked still counts. */
  isEmbedded = false,
): Promise<Response> {
  const language = languageFor(undefined, request.headers.get("accept-language"));
  const words = wordsIn(language).links.page;
  const page = (inside: string, status: number) => plainPage(inside, status, language);
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
      case "talk":
        return page(talk(opened, words), opened.refusal ? 400 : 200);
      case "said": {
        // So that to load it anew sends nothing again.
        const { pathname, search } = new URL(request.url);
        return new Response(null, { status: 303, headers: { ...quiet, location: `${pathname}${search}` } });
      }
      case "password":
        return page(question(opened, words), opened.waits > 0 ? 429 : opened.isWrong ? 403 : 200);
      case "gone":
        return page(`<p>${words.gone}</p>`, 404);
    }
  } catch (error) {
    console.error(error);
    return page(`<p>${words.broken}</p>`, 500);
  }
}

type Words = ReturnType<typeof wordsIn>["links"]["page"];

function question({ isWrong, waits }: OpenedLink & { readonly kind: "password" }, words: Words): string {
  const told = waits > 0 ? words.wait(waits) : isWrong ? words.wrong : "";
  return `<form method="post"><label>${words.password} <input type="password" name="password" autocomplete="current-password" required autofocus></label> <button>${words.open}</button></form>${told && `<p role="alert">${told}</p>`}`;
}

/** What was said of a thing by this link, and a form to say more. What is sent has a number of its own: sent twice, it is kept once. */
function talk({ about, said, hasPassword, refusal }: CommentPage & { readonly kind: "talk" }, words: Words): string {
  const told = said.map(({ name, text }) => `<li><b>${escapeText(name)}</b><br>${escapeText(text)}</li>`).join("");
  const password = hasPassword
    ? `<p><label>${words.password}<br><input type="password" name="password" autocomplete="current-password" required></label></p>`
    : "";
  return `<h2>${escapeText(about)}</h2>${told === "" ? "" : `<ul>${told}</ul>`}${refusal ? `<p role="alert">${words[refusal]}</p>` : ""}<form method="post"><input type="hidden" name="id" value="${escapeAttribute(randomBytes(12).toString("base64url"))}"><p><label>${words.yourName}<br><input name="name" autocomplete="name" maxlength="80" required></label></p><p><label>${words.yourWords}<br><textarea name="text" rows="6" maxlength="10000" required></textarea></label></p>${password}<button>${words.send}</button></form><p><a href="./">${words.back}</a></p>`;
}

const plainPage = (inside: string, status: number, language: string) =>
  new Response(
    `<!doctype html><html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><meta name="robots" content="noindex"><title>Lucid Lane</title><style>body{font:16px/1.5 Verdana,sans-serif;color:#1E2430;background:#F7F4EC;max-width:30rem;margin:3rem auto;padding:0 1rem}textarea{width:100%;box-sizing:border-box}li{margin-bottom:.5rem;white-space:pre-line}input,button,textarea{font:inherit;padding:.3rem .5rem}</style></head><body><main><h1>Lucid Lane</h1>${inside}</main></body></html>`,
    {
      status,
      headers: { ...quiet, "content-type": "text/html; charset=utf-8", "content-security-policy": formPolicy },
    },
  );
