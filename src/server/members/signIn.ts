import { randomBytes } from "node:crypto";
import { betterAuth } from "better-auth";
import { drizzleAdapter } from "better-auth/adapters/drizzle";
import { genericOAuth } from "better-auth/plugins";
import { database } from "@/data/database";
import { signInAccounts, signInSessions, signInUsers, signInVerifications } from "@/data/schema";
import { cookiePrefix } from "../kernel/signInMode";
import { noteSigning } from "./noteSigning";
import { secretOf } from "./secrets";

/** A provider elsewhere that vouches for members, where one is configured (OpenID Connect). */
export interface Provider {
  readonly name: string;
  readonly issuer: string;
  readonly client: string;
  readonly secret: string | undefined;
}
export function providerOf(env: NodeJS.ProcessEnv = process.env): Provider | undefined {
  const { LANE_OIDC_ISSUER: issuer, LANE_OIDC_CLIENT: client, LANE_OIDC_SECRET: secret, LANE_OIDC_NAME: name } = env;
  if (!issuer || !client) return undefined;
  return { name: name || new URL(issuer).host, issuer: issuer.replace(/\/$/, ""), client, secret: secret || undefined };
}

/** The id by which the provider stands in the tables, and in the address it sends people back to. */
export const providerId = "elsewhere";
/** A session ends a week after it began, or when it is ended. */
const sessionSeconds = 7 * 24 * 3_600;

export type Auth = ReturnType<typeof made>;
function made(
  origin: string,
  secret: string,
  db: Awaited<ReturnType<typeof database>>["db"],
  provider: Provider | undefined,
) {
  return betterAuth({
    baseURL: origin,
    basePath: "/api/session/auth",
    secret,
    trustedOrigins: [origin],
    database: drizzleAdapter(db, {
      provider: "pg",
      schema: {
        user: signInUsers,
        session: signInSessions,
        account: signInAccounts,
        verification: signInVerifications,
      },
    }),
    // Members are made by an owner, and nobody makes themselves one.
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 12, maxPasswordLength: 200 },
    session: { expiresIn: sessionSeconds, disableSessionRefresh: true },
    databaseHooks: {
      session: { create: { after: ({ userId }) => noteSigning({ member: userId, act: "signedIn" }) } },
    },
    // A provider vouches for an address only where it says that it has proven it; anybody can claim one.
    account: { accountLinking: { enabled: true } },
    plugins: provider
      ? [
          genericOAuth({
            config: [
              {
                providerId,
                name: provider.name,
                discoveryUrl: `${provider.issuer}/.well-known/openid-configuration`,
                clientId: provider.client,
                ...(provider.secret !== undefined && { clientSecret: provider.secret }),
                scopes: ["openid", "email", "profile"],
                pkce: true,
                requireIdTokenVerification: true,
                disableImplicitSignUp: true,
                disableSignUp: true,
              },
            ],
          }),
        ]
      : [],
    // Tries are counted by address (tries.ts), and by how much is worked on at once (signingIn.ts).
    rateLimit: { enabled: false },
    telemetry: { enabled: false },
    logger: { level: "error" },
    advanced: {
      cookiePrefix,
      defaultCookieAttributes: { httpOnly: true, sameSite: "lax", path: "/" },
      useSecureCookies: origin.startsWith("https:"),
      ipAddress: { disableIpTracking: true },
    },
  });
}

const shared = globalThis as unknown as { laneAuth?: Map<string, Promise<Auth>> };

/** Names by which the server is asked are few (kernel/access); each has cookies of its own. */
export function authFor(origin: string): Promise<Auth> {
  shared.laneAuth ??= new Map();
  const provider = providerOf();
  const key = JSON.stringify([origin, provider, process.env.LANE_DATA, process.env.DATABASE_URL]);
  const known = shared.laneAuth.get(key);
  if (known) return known;
  const making = Promise.all([database(), secretOf("sessions", () => randomBytes(32).toString("base64url"))]).then(
    ([{ db }, secret]) => made(origin, secret, db, provider),
  );
  making.catch(() => shared.laneAuth?.delete(key));
  shared.laneAuth.set(key, making);
  return making;
}

/** Forgets what stands on a database that is closed. */
export const forgetAuth = (): void => shared.laneAuth?.clear();
