import { and, asc, desc, eq, inArray, isNull } from "drizzle-orm";
import { review as terms } from "@/contract";
import type { MyReview, ReviewRow, ReviewState } from "@/contract/review";
import { heads, members, processes, reviews, versions } from "@/data/schema";
import { lock, type Transaction } from "../kernel/act";
import { keepRevision } from "../kernel/revisions";
import { needsFreeId } from "../kernel/takenIds";
import { type Context, notFound, query, UseCaseError, useCase } from "../kernel/useCase";

type Row = typeof reviews.$inferSelect;

/** How a round stands, by its answers. */
export function stateOfReview({
  reviewers,
  answers,
  withdrawnAt,
}: Pick<Row, "reviewers" | "answers" | "withdrawnAt">): ReviewState {
  if (withdrawnAt !== null) return "withdrawn";
  const own = reviewers.map((member) => answers.find((one) => one.member === member)?.answer);
  if (own.includes("reject")) return "rejected";
  return own.every((answer) => answer === "approve" || answer === "remarks") ? "approved" : "asked";
}

/** The rounds of a version, the latest first. */
export async function reviewsOf(db: Transaction, version: string, me: string): Promise<ReviewRow[]> {
  const [head] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
  const rows = await db
    .select()
    .from(reviews)
    .where(eq(reviews.version, version))
    .orderBy(desc(reviews.at), desc(reviews.revision), desc(reviews.id));
  const named = await db.select({ id: members.id, name: members.name }).from(members);
  const names = new Map(named.map(({ id, name }) => [id, name]));
  return rows.map((row) => ({
    ...{ id: row.id, revision: row.revision, question: row.question, due: row.due, at: row.at },
    name: names.get(row.member) ?? "",
    isMine: row.member === me,
    reviewers: row.reviewers.map((member) => {
      const own = row.answers.find((one) => one.member === member);
      return {
        member,
        name: names.get(member) ?? "",
        answer: own?.answer ?? null,
        note: own?.note ?? "",
        at: own?.at ?? null,
      };
    }),
    state: stateOfReview(row),
    holds: row.sequence === head?.sequence,
  }));
}

export const listReviews = query(terms.listReviews, async ({ db, member }, { version }) => ({
  reviews: await reviewsOf(db, version, member.id),
}));

export const askReview = useCase(terms.askReview, async (context, { version, review, reviewers, question, due }) => {
  const { db, member, asked } = context;
  await lock(db, "version", [version]);
  const [known] = await db
    .select({ version: reviews.version, revision: reviews.revision })
    .from(reviews)
    .where(eq(reviews.id, review));
  // Asked once more after the answer was lost.
  if (known?.version === version) return { revision: known.revision };
  await needsFreeId(db, reviews, review);
  const wanted = [...new Set(reviewers)];
  const there = await db.select({ id: members.id }).from(members).where(inArray(members.id, wanted));
  if (there.length < wanted.length) throw notFound("One of these members");
  const [head] = await db.select({ sequence: heads.sequence }).from(heads).where(eq(heads.version, version));
  if (!head) throw notFound("This version");
  const revision = await keepRevision(context, version, "for review");
  await db.insert(reviews).values({
    ...{ id: review, version, revision, sequence: head.sequence, question, due },
    ...{ reviewers: wanted, answers: [], member: member.id, at: asked },
  });
  return { revision };
});

/** A round of the version, to be changed: two at once come one after the other. */
async function opened({ db }: Context, { version, review }: { readonly version: string; readonly review: string }) {
  await lock(db, "version", [version]);
  const [row] = await db
    .select()
    .from(reviews)
    .where(and(eq(reviews.id, review), eq(reviews.version, version)));
  if (!row) throw notFound("This review");
  if (row.withdrawnAt !== null)
    throw new UseCaseError("withdrawn", "This review was withdrawn. Ask for another one.", 409);
  return row;
}

export const answerReview = useCase(terms.answerReview, async (context, { answer, note, ...of }) => {
  const { db, member, now } = context;
  const row = await opened(context, of);
  if (!row.reviewers.includes(member.id))
    throw new UseCaseError("not-asked", "Only who was asked can answer a review. Write a comment instead.", 403);
  const others = row.answers.filter((one) => one.member !== member.id);
  const own = { member: member.id, answer, note, at: now() };
  await db
    .update(reviews)
    .set({ answers: [...others, own] })
    .where(eq(reviews.id, row.id));
  return {};
});

export const withdrawReview = useCase(terms.withdrawReview, async (context, of) => {
  const row = await opened(context, of);
  if (row.member !== context.member.id)
    throw new UseCaseError("not-yours", "Only who asked for a review can withdraw it.", 403);
  await context.db.update(reviews).set({ withdrawnAt: context.now() }).where(eq(reviews.id, row.id));
  return {};
});

export const myReviews = query(terms.myReviews, async ({ db, member }): Promise<{ reviews: MyReview[] }> => {
  const rows = await db
    .select({ review: reviews, name: members.name, versionName: versions.name, process: processes.name })
    .from(reviews)
    .innerJoin(versions, eq(versions.id, reviews.version))
    .innerJoin(processes, eq(processes.id, versions.process))
    .leftJoin(members, eq(members.id, reviews.member))
    .where(and(isNull(reviews.withdrawnAt), isNull(versions.deletedAt), isNull(processes.deletedAt)))
    .orderBy(asc(reviews.due), asc(reviews.at));
  // Of several rounds on one version only the last one waits.
  const last = new Map<string, string>();
  for (const { review } of [...rows].sort((one, other) => (one.review.at < other.review.at ? -1 : 1)))
    last.set(review.version, review.id);
  return {
    reviews: rows
      .filter(
        ({ review }) =>
          last.get(review.version) === review.id &&
          review.reviewers.includes(member.id) &&
          !review.answers.some((one) => one.member === member.id),
      )
      .map(({ review, name, versionName, process }) => ({
        ...{ id: review.id, version: review.version, question: review.question, due: review.due },
        ...{ name: name ?? "", versionName, process },
      })),
  };
});

/** How the last round on some versions stands; nothing where none was asked for, or it was withdrawn. */
export async function lastReviews(
  db: Transaction,
  of: readonly string[],
): Promise<ReadonlyMap<string, "asked" | "approved" | "rejected" | "lapsed">> {
  const found = new Map<string, "asked" | "approved" | "rejected" | "lapsed">();
  if (of.length === 0) return found;
  const rows = await db
    .select({ review: reviews, now: heads.sequence })
    .from(reviews)
    .innerJoin(heads, eq(heads.version, reviews.version))
    .where(and(inArray(reviews.version, [...of]), isNull(reviews.withdrawnAt)))
    .orderBy(asc(reviews.at), asc(reviews.revision));
  for (const { review, now } of rows) {
    const state = stateOfReview(review);
    if (state !== "withdrawn") found.set(review.version, review.sequence === now ? state : "lapsed");
  }
  return found;
}
