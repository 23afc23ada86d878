import { z } from "zod";
import { asks, type Done, named, type Right, workspace } from "./contract";
import { id, name } from "./inputs";
import { type AreaSeat, areaSeats, type Seat, seats } from "./seats";

export interface MemberRow {
  readonly id: string;
  readonly name: string;
  /** Roles of the directory that this member fills. */
  readonly roles: readonly string[];
  readonly seat: Seat;
  readonly areas: readonly AreaSeat[];
}

/** What only owners see of a member. */
export interface MemberAccount {
  readonly id: string;
  readonly email: string | null;
  /** Whether there is a password, or somebody elsewhere who vouches: without either nobody can sign in. */
  readonly canSignIn: boolean;
  readonly signedInAt: string | null;
  /** Until when an invitation can be taken up; null where none is out. */
  readonly invitedUntil: string | null;
  /** Seconds until the next password is looked at, after too many wrong ones. */
  readonly waits: number;
}

export interface SessionRow {
  readonly id: string;
  readonly at: string;
  /** The browser, as it calls itself. */
  readonly agent: string;
  readonly until: string;
  readonly isThis: boolean;
}

/** One line of what was done. */
export interface AuditRow {
  readonly id: number;
  readonly at: string;
  readonly member: string;
  readonly memberName: string;
  /** The use case, or what became of signing in. */
  readonly act: string;
  readonly isRefused: boolean;
  /** What it was about, by name where that is known. */
  readonly about: string;
}
export const auditPage = 100;

const on = () => [workspace];
const email = z.email("This is no e-mail address.").max(200).toLowerCase();
export const password = z
  .string()
  .min(12, "A password has at least 12 characters.")
  .max(200, "A password has at most 200 characters.");

/** Who has access, to what, and what they did. */
export const membership = named({
  listMembers: asks<{
    members: readonly MemberRow[];
    me: string;
    /** What this member may everywhere, and what more in which areas. */
    rights: readonly Right[];
    inAreas: readonly { readonly area: string; readonly rights: readonly Right[] }[];
    /** Whether members sign in; else anybody says who they are, to try things. */
    signsIn: boolean;
  }>()({ input: z.object({}), right: "read", on }),
  /** A new member, or what is changed of one: left out, it stays. */
  setMember: asks<Done>()({
    input: z.object({
      id,
      name,
      roles: z.array(id).max(200),
      seat: z.enum(seats).optional(),
      areas: z
        .array(z.object({ area: id, seat: z.enum(areaSeats) }))
        .max(500)
        .optional(),
      email: email.nullable().optional(),
    }),
    right: "own",
    on,
  }),
  /** Takes all access away: sessions end, keys work no more. What this member did stays under the name. */
  removeMember: asks<Done>()({ input: z.object({ id }), right: "own", on }),
  listAccounts: asks<{ accounts: readonly MemberAccount[] }>()({ input: z.object({}), right: "own", on }),
  /** A link by which a member sets a password, once, within three days; the one before opens nothing any more. */
  inviteMember: asks<{ token: string; until: string }>()({ input: z.object({ id }), right: "own", on }),
  /** Ends every session of a member. */
  signOutMember: asks<Done>()({ input: z.object({ id }), right: "own", on }),
  listAudit: asks<{ rows: readonly AuditRow[]; total: number }>()({
    input: z.object({ member: id.nullable().default(null), from: z.number().int().min(0).max(10_000_000).default(0) }),
    right: "own",
    on,
  }),
});
