import { z } from "zod";
import {
  type Adaption,
  levelSchema,
  type ProfileName,
  profileNames,
  type SignedContent,
  type Waiver,
} from "@/core/check";
import { asks, type Done, named, version, workspace } from "./contract";
import { id } from "./inputs";

export interface VerdictRow {
  readonly id: string;
  readonly revision: number;
  readonly profile: ProfileName;
  readonly content: SignedContent;
  readonly member: string;
  readonly at: string;
  /** Whether the process is still what was signed. */
  readonly holds: boolean;
}

/** What a version is checked for, what was accepted, and what was signed. */
export interface CheckData {
  readonly profile: ProfileName;
  readonly adaption: Adaption;
  readonly waivers: readonly (Waiver & { readonly id: string })[];
  readonly verdicts: readonly VerdictRow[];
}

const finding = z.string().min(1).max(5000);
const here = (input: { readonly version: string }) => [version(input.version)];

export const check = named({
  openCheck: asks<CheckData>()({ input: z.object({ version: id }), right: "read", on: here }),
  /** Accepts a finding, with a reason and the acting member's name, as long as what it is about does not change. */
  waive: asks<Done>()({
    input: z.object({
      version: id,
      finding,
      reason: z.string().trim().min(3, "Say in a few words why this is accepted.").max(2000),
    }),
    right: "judge",
    on: here,
  }),
  withdrawWaiver: asks<Done>()({ input: z.object({ version: id, finding }), right: "judge", on: here }),
  /** Signs what the version holds now: a revision is kept for it. Refused while an error is open. */
  signVerdict: asks<{ revision: number }>()({ input: z.object({ version: id }), right: "judge", on: here }),
  chooseProfile: asks<Done>()({
    input: z.object({ version: id, profile: z.enum(profileNames) }),
    right: "judge",
    on: here,
  }),
  /** A rule's level in a profile, for the whole workspace; null for what it is by itself. */
  adaptRule: asks<Done>()({
    input: z.object({ profile: z.enum(profileNames), rule: z.string(), level: levelSchema.nullable() }),
    right: "own",
    on: () => [workspace],
  }),
});
