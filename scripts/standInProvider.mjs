/**
 * A provider that vouches for members, made up: for trying signing in by OpenID Connect with nothing outside. `npm run provider`, then
 * `LANE_SIGN_IN=on LANE_OIDC_ISSUER=http://localhost:4400 LANE_OIDC_CLIENT=lane npm start`. It asks for no password: whoever opens its
 * page says who they are. Authorization code flow with PKCE; ID tokens by RS256 (OpenID Connect Core 1.0, sections 2 and 3.1; RFC 7636).
 */
import { createHash, createSign, generateKeyPairSync, randomBytes } from "node:crypto";
import { createServer } from "node:http";
import { pathToFileURL } from "node:url";

/** The last one claims an address that this provider has not proven. */
const people = [
  { sub: "ines", name: "Ines Orr", email: "ines@quillmere.example" },
  { sub: "tilda", name: "Tilda Quist", email: "tilda@quillmere.example" },
  { sub: "claims", name: "Somebody else", email: "ines@quillmere.example", email_verified: false },
];
const base64 = (value) => Buffer.from(typeof value === "string" ? value : JSON.stringify(value)).toString("base64url");
const escaped = (text) => String(text).replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);

/** Starts one; gives its address, and how to stop it. */
export function startProvider(port = 4400) {
  const { privateKey, publicKey } = generateKeyPairSync("rsa", { modulusLength: 2048 });
  const codes = new Map();
  const tokens = new Map();
  let issuer = "";
  const signed = (claims) => {
    const body = `${base64({ alg: "RS256", typ: "JWT", kid: "one" })}.${base64(claims)}`;
    return `${body}.${createSign("RSA-SHA256").update(body).sign(privateKey).toString("base64url")}`;
  };
  const answers = {
    "/.well-known/openid-configuration": () => ({
      issuer,
      authorization_endpoint: `${issuer}/authorize`,
      token_endpoint: `${issuer}/token`,
      userinfo_endpoint: `${issuer}/userinfo`,
      jwks_uri: `${issuer}/keys`,
      response_types_supported: ["code"],
      subject_types_supported: ["public"],
      id_token_signing_alg_values_supported: ["RS256"],
      code_challenge_methods_supported: ["S256"],
      token_endpoint_auth_methods_supported: ["none", "client_secret_post"],
    }),
    "/keys": () => ({ keys: [{ ...publicKey.export({ format: "jwk" }), kid: "one", use: "sig", alg: "RS256" }] }),
    "/token": (form) => {
      const asked = codes.get(form.get("code"));
      codes.delete(form.get("code"));
      const challenge = createHash("sha256")
        .update(form.get("code_verifier") ?? "")
        .digest("base64url");
      if (!asked || asked.redirect !== form.get("redirect_uri") || asked.challenge !== challenge) return undefined;
      const access = randomBytes(16).toString("base64url");
      tokens.set(access, asked.person);
      const now = Math.floor(Date.now() / 1000);
      const claims = {
        email_verified: true,
        ...asked.person,
        iss: issuer,
        aud: asked.client,
        iat: now,
        exp: now + 300,
      };
      return {
        access_token: access,
        token_type: "Bearer",
        expires_in: 300,
        id_token: signed({ ...claims, ...(asked.nonce && { nonce: asked.nonce }) }),
      };
    },
    "/userinfo": (_form, request) => {
      const person = tokens.get((request.headers.authorization ?? "").replace(/^Bearer /, ""));
      return person && { email_verified: true, ...person };
    },
  };
  /** Who it is, is said with a click; `login_hint`, or `as`, says it without. */
  const authorize = (asked, response) => {
    const person = people.find(({ sub }) => sub === asked.get("as"));
    if (!person) {
      response.setHeader("content-type", "text/html; charset=utf-8");
      const link = ({ sub, name }) =>
        `<p><a href="/authorize?${escaped(asked)}&amp;as=${sub}">${escaped(name)}</a></p>`;
      return response.end(
        `<!doctype html><title>Who are you?</title><h1>Who are you?</h1>${people.map(link).join("")}`,
      );
    }
    const code = randomBytes(16).toString("base64url");
    const redirect = asked.get("redirect_uri") ?? "";
    const kept = { client: asked.get("client_id"), challenge: asked.get("code_challenge"), nonce: asked.get("nonce") };
    codes.set(code, { person, redirect, ...kept });
    response.statusCode = 302;
    response.setHeader("location", `${redirect}?${new URLSearchParams({ code, state: asked.get("state") ?? "" })}`);
    response.end();
  };
  const server = createServer(async (request, response) => {
    const address = new URL(request.url, issuer);
    let body = "";
    for await (const part of request) body += part;
    if (address.pathname === "/authorize") return authorize(address.searchParams, response);
    const answer = answers[address.pathname]?.(new URLSearchParams(body), request);
    response.statusCode = answer ? 200 : 400;
    response.setHeader("content-type", "application/json");
    response.end(JSON.stringify(answer ?? { error: "invalid_request" }));
  });
  return new Promise((resolve) =>
    server.listen(port, "127.0.0.1", () => {
      issuer = `http://localhost:${server.address().port}`;
      resolve({ issuer, stop: () => new Promise((done) => server.close(done)) });
    }),
  );
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const { issuer } = await startProvider(Number(process.env.PORT ?? 4400));
  console.log(`The stand-in provider listens: LANE_OIDC_ISSUER=${issuer}`);
}
