/**
 * What a database or its disk says when something does not go, in words that help: PostgreSQL's error codes (appendix A of its
 * documentation) and the operating system's. Both databases speak the same codes.
 */
interface Told {
  readonly code: string;
  readonly message: string;
  readonly status: number;
}

/** The innermost error that carries a code; libraries wrap what the database said. */
function coded(error: unknown): { code: string; message: string } | undefined {
  for (let at = error, depth = 0; at instanceof Error && depth < 8; at = at.cause, depth++) {
    if (at instanceof AggregateError && at.errors[0]) return coded(at.errors[0]);
    const { code } = at as { code?: unknown };
    if (typeof code === "string") return { code, message: at.message };
  }
  return undefined;
}

/** What was said first, under what was wrapped around it. */
function innermost(error: unknown): Error | undefined {
  if (!(error instanceof Error)) return undefined;
  let inner: Error = error;
  for (let depth = 0; inner.cause instanceof Error && depth < 8; depth++) inner = inner.cause;
  return inner;
}

/** Whether the same act may go when it is done again: two acts met, and one had to give way. */
export const isWorthRetrying = (error: unknown): boolean => ["40001", "40P01"].includes(coded(error)?.code ?? "");

const unreachable: Told = {
  code: "database-unreachable",
  message:
    "The database does not answer. What you did is kept in this window and is sent again by itself; if this stays, ask whoever runs the server to look after the database that DATABASE_URL names.",
  status: 503,
};
const full: Told = {
  code: "disk-full",
  message:
    "There is no room left on the disk that holds the workspace. Nothing of this change was stored; it is kept in this window. Make room there, and it is sent again by itself.",
  status: 507,
};
const readOnly: Told = {
  code: "read-only",
  message:
    "The workspace cannot be written to: its folder or its database is read-only. Give the user that runs Lucid Lane the right to write there, then try again.",
  status: 503,
};
const damaged: Told = {
  code: "database-damaged",
  message:
    "A part of the database cannot be read. What can still be read opens as usual; put back the last backup for the rest (npm run restore -- FILE).",
  status: 500,
};
const taken: Told = {
  code: "taken",
  message: "There is something with this id or name already. Choose another one.",
  status: 409,
};
const tooMuch: Told = {
  code: "too-much",
  message: "A value in this request is larger than what can be kept. Make it smaller, then try again.",
  status: 400,
};
const busy: Told = {
  code: "busy",
  message: "Somebody else is changing the same thing just now, and it takes long. Try again in a moment.",
  status: 503,
};

const byCode: { readonly [code: string]: Told } = {
  "23505": taken,
  "22003": tooMuch,
  "22001": tooMuch,
  "54000": tooMuch,
  "22P05": {
    code: "unstorable-text",
    message: "A text holds a character that cannot be kept (a NUL). Take it out, then try again.",
    status: 400,
  },
  "22021": {
    code: "unstorable-text",
    message: "A text holds characters that are not valid Unicode. Take them out, then try again.",
    status: 400,
  },
  "53100": full,
  ENOSPC: full,
  EDQUOT: full,
  // A limit of the system on the size of files.
  EFBIG: full,
  "25006": readOnly,
  EROFS: readOnly,
  EACCES: readOnly,
  EPERM: readOnly,
  XX001: damaged,
  XX002: damaged,
  "58030": damaged,
  "55P03": busy,
  "57014": busy,
  "40001": busy,
  "40P01": busy,
};

/** The driver gives no code to what it says of a connection that broke in the middle, or of a server that did not answer in time. */
function isCutOff(error: unknown): boolean {
  return /^(Connection terminated|Client (has encountered a connection error|was closed)|timeout exceeded when trying to connect)/.test(
    innermost(error)?.message ?? "",
  );
}

/** What a person is told of an error that the database or its disk caused; undefined for any other. */
export function toldByDatabase(error: unknown): Told | undefined {
  const found = coded(error);
  if (!found) return isCutOff(error) ? unreachable : undefined;
  if (byCode[found.code]) return byCode[found.code];
  const isGone = /^(08...|53300|57P0.|ECONN.*|ENOTFOUND|EHOSTUNREACH|ETIMEDOUT|EPIPE|EAI_AGAIN)$/.test(found.code);
  return isGone ? unreachable : undefined;
}

/**
 * One line for the log of the server: what failed and where, without what was sent. Libraries put whole queries with their values
 * into their messages; the log holds no contents of files or models.
 */
export function lineForLog(error: unknown): string {
  if (!(error instanceof Error)) return "something that is no error was thrown";
  const inner = innermost(error) ?? error;
  const code = coded(error)?.code;
  const message = inner.message.startsWith("Failed query") ? "a query failed" : (inner.message.split("\n")[0] ?? "");
  const place = (inner.stack ?? "")
    .split("\n")
    .find((line) => line.trim().startsWith("at "))
    ?.trim();
  return [code && `[${code}]`, `${inner.name}: ${message.slice(0, 300)}`, place].filter(Boolean).join(" ");
}
