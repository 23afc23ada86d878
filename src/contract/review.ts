import { z } from "zod";
import { asks, type Done, named, version, workspace } from "./contract";
import { id } from "./inputs";

/** What a reviewer says of a kept state. */
export const reviewAnswers = ["approve", "remarks", "reject"] as const;
export type ReviewAnswer = (typeof reviewAnswers)[number];

/** How a round stands: rejected as soon as one rejects, approved when all have approved, with remarks or without. */
export type ReviewState = "asked" | "approved" | "rejected" | "withdrawn";

export interface ReviewerRow {
  readonly member: string;
  readonly name: string;
  readonly answer: ReviewAnswer | null;
  readonly note: string;
  readonly at: string | null;
}

export interface ReviewRow {
  readonly id: string;
  /** The kept state that is reviewed. */
  readonly revision: number;
  readonly question: string;
  /** A day (ISO 8601), by when answers are wanted. */
  readonly due: string | null;
  readonly name: string;
  /** Whether the asking member asks who looks. */
  readonly isMine: boolean;
  readonly at: string;
  readonly reviewers: readonly ReviewerRow[];
  readonly state: ReviewState;
  /** Whether the version still is what was reviewed. */
  readonly holds: boolean;
}

export interface MyReview {
  readonly id: string;
  readonly version: string;
  readonly versionName: string;
  readonly process: string;
  readonly question: string;
  readonly due: string | null;
  readonly name: string;
}

const ofVersion = z.object({ version: id });
const ofReview = ofVersion.extend({ review: id });
const on = (input: { readonly version: string }) => [version(input.version)];

/** Rounds of review: kept states that some members are asked about. */
export const review = named({
  listReviews: asks<{ reviews: readonly ReviewRow[] }>()({ input: ofVersion, right: "read", on }),
  /** Keeps what the version holds now, and asks for answers about it. */
  askReview: asks<{ revision: number }>()({
    input: ofReview.extend({
      reviewers: z.array(id).min(1, "Choose who is to review.").max(50),
      question: z.string().trim().max(2_000),
      due: z.iso.date().nullable(),
    }),
    right: "comment",
    on,
  }),
  /** Only by somebody who was asked; said again, the last word counts. */
  answerReview: asks<Done>()({
    input: ofReview.extend({ answer: z.enum(reviewAnswers), note: z.string().trim().max(5_000) }),
    right: "comment",
    on,
  }),
  withdrawReview: asks<Done>()({ input: ofReview, right: "comment", on }),
  /** Rounds that wait for one's own answer, over all versions. */
  myReviews: asks<{ reviews: readonly MyReview[] }>()({ input: z.object({}), right: "read", on: () => [workspace] }),
});
