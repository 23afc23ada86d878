import { boolean, index, integer, jsonb, pgTable, serial, text, timestamp } from "drizzle-orm/pg-core";
import type { Thing } from "@/contract";

/**
 * Who may sign in here, and what was done here. All of it belongs to the installation: no backup carries it, and a restore leaves it as it
 * is. The first four are as the authentication package wants them.
 */
const moment = (name: string) => timestamp(name, { withTimezone: true, mode: "date" });

/** Members who can sign in, by the member's id. */
export const signInUsers = pgTable("sign_in_users", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  email: text("email").notNull().unique(),
  emailVerified: boolean("email_verified").notNull().default(false),
  image: text("image"),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

export const signInSessions = pgTable(
  "sign_in_sessions",
  {
    id: text("id").primaryKey(),
    token: text("token").notNull().unique(),
    userId: text("user_id").notNull(),
    expiresAt: moment("expires_at").notNull(),
    ipAddress: text("ip_address"),
    userAgent: text("user_agent"),
    createdAt: moment("created_at").notNull().defaultNow(),
    updatedAt: moment("updated_at").notNull().defaultNow(),
  },
  (table) => [index("sign_in_sessions_user").on(table.userId)],
);

/** By what a member signs in: a password, or an account elsewhere. */
export const signInAccounts = pgTable(
  "sign_in_accounts",
  {
    id: text("id").primaryKey(),
    accountId: text("account_id").notNull(),
    providerId: text("provider_id").notNull(),
    userId: text("user_id").notNull(),
    accessToken: text("access_token"),
    refreshToken: text("refresh_token"),
    idToken: text("id_token"),
    accessTokenExpiresAt: moment("access_token_expires_at"),
    refreshTokenExpiresAt: moment("refresh_token_expires_at"),
    scope: text("scope"),
    password: text("password"),
    createdAt: moment("created_at").notNull().defaultNow(),
    updatedAt: moment("updated_at").notNull().defaultNow(),
  },
  (table) => [index("sign_in_accounts_user").on(table.userId)],
);

/** What a sign-in by another provider has to come back with. */
export const signInVerifications = pgTable("sign_in_verifications", {
  id: text("id").primaryKey(),
  identifier: text("identifier").notNull(),
  value: text("value").notNull(),
  expiresAt: moment("expires_at").notNull(),
  createdAt: moment("created_at").notNull().defaultNow(),
  updatedAt: moment("updated_at").notNull().defaultNow(),
});

/** Links by which a member sets a password; only what they come to is kept. */
export const invitations = pgTable("invitations", {
  member: text("member").primaryKey(),
  token: text("token").notNull().unique(),
  expiresAt: timestamp("expires_at", { withTimezone: true, mode: "string" }).notNull(),
});

/** Wrong passwords in a row, by what the address they were given for comes to. */
export const signInTries = pgTable("sign_in_tries", {
  key: text("key").primaryKey(),
  failures: integer("failures").notNull(),
  lockedUntil: timestamp("locked_until", { withTimezone: true, mode: "string" }),
  at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
});

/** What only the server knows. */
/** Of which day each member was last sent what waits for them. */
export const digests = pgTable("digests", { member: text("member").primaryKey(), day: text("day").notNull() });

export const secrets = pgTable("secrets", { key: text("key").primaryKey(), value: text("value").notNull() });

/** What was done, by whom, to what. */
export const audit = pgTable(
  "audit",
  {
    id: serial("id").primaryKey(),
    at: timestamp("at", { withTimezone: true, mode: "string" }).notNull(),
    member: text("member").notNull(),
    act: text("act").notNull(),
    isRefused: boolean("is_refused").notNull().default(false),
    things: jsonb("things").$type<readonly Thing[]>().notNull(),
    /** What it was about, beside things that have a place: a member by name. */
    about: text("about").notNull().default(""),
  },
  (table) => [index("audit_member").on(table.member, table.id)],
);
