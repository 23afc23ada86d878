import { isIP } from "node:net";
import { hostname } from "node:os";

/**
 * Who may reach the server. Where nobody signs in, whoever reaches it may do everything; where members do, their session goes along with
 * each request. So what is asked must come from a page of its own: a name that some other site points at this machine, a form or a script of another site, are turned away.
 */
export interface Asked {
  readonly method: string;
  readonly header: (name: string) => string | null;
}

/** A host without its port, in the spelling of URLs; undefined where it is none. */
function nameOf(host: string): string | undefined {
  try {
    return new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, "").toLowerCase();
  } catch {
    return undefined;
  }
}

const isLocal = (name: string) =>
  name === "localhost" || name.endsWith(".localhost") || name === "127.0.0.1" || name === "::1";

/**
 * Names by which the server may be asked: this machine itself; the address it listens on (`HOST`) and, where that is more than this
 * machine, its name and any bare address (another site's name cannot become one); what `LANE_HOSTS` lists, by commas,
 * and what `LANE_ORIGIN` says browsers call it.
 */
export function isOwnName(name: string, env: NodeJS.ProcessEnv = process.env): boolean {
  if (isLocal(name)) return true;
  const listed = (env.LANE_HOSTS ?? "")
    .split(",")
    .map((one) => one.trim().toLowerCase())
    .filter(Boolean);
  if (listed.includes(name) || name === nameOf((env.LANE_ORIGIN ?? "").replace(/^https?:\/\//, ""))) return true;
  const host = (env.HOST ?? "").toLowerCase();
  if (host === "" || isLocal(host)) return false;
  return name === host || name === hostname().toLowerCase() || isIP(name) !== 0;
}

/** Why a request is not answered; undefined where it is. */
export function whyForeign(asked: Asked, env: NodeJS.ProcessEnv = process.env): string | undefined {
  const host = asked.header("host");
  const name = host === null ? undefined : nameOf(host);
  if (host === null || name === undefined || !isOwnName(name, env))
    return `This server is not called ${host ?? "that"}. Ask whoever runs it to list that name in LANE_HOSTS.`;
  const site = asked.header("sec-fetch-site");
  const isRead = asked.method === "GET" || asked.method === "HEAD";
  const isNavigation = isRead && asked.header("sec-fetch-mode") === "navigate";
  if (site !== null && site !== "same-origin" && site !== "none" && !isNavigation)
    return "Requests from other sites are not answered.";
  const origin = asked.header("origin");
  if (origin !== null && !(isRead && origin === "null")) {
    const from = origin === "null" ? undefined : hostOf(origin);
    if (from !== host.toLowerCase()) return "Requests from other sites are not answered.";
  }
  return undefined;
}

const hostOf = (origin: string): string | undefined => {
  try {
    return new URL(origin).host;
  } catch {
    return undefined;
  }
};

/** What a page of ours may load and run: only what is shipped with it, and of scripts only those that carry the page's own number. */
export function contentPolicy(nonce: string, isDevelopment: boolean): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${isDevelopment ? " 'unsafe-eval'" : ""}`,
    // Shapes carry their places as styles.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self' data:",
    "worker-src 'self' blob:",
    `connect-src 'self'${isDevelopment ? " ws:" : ""}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}
