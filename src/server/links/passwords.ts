import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";

/** Costs by which a password is worked on: 32 MB and about a tenth of a second (RFC 7914; OWASP's least for scrypt, from memory). */
const costs = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 } as const;
const length = 32;

const worked = (password: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    scrypt(password.normalize("NFKC"), salt, length, costs, (error, key) => (error ? reject(error) : resolve(key))),
  );

/** A password as it is kept: its salt, and what it comes to. */
export async function hashOfPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return `scrypt$${salt.toString("base64url")}$${(await worked(password, salt)).toString("base64url")}`;
}

/** Whether a password is the one that was kept; takes as long for a wrong one. */
export async function isPassword(password: string, kept: string): Promise<boolean> {
  const [, salt = "", hash = ""] = kept.split("$");
  const [known, given] = [Buffer.from(hash, "base64url"), await worked(password, Buffer.from(salt, "base64url"))];
  return known.length === given.length && timingSafeEqual(known, given);
}
