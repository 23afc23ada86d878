import { counted } from "@/core/model";

/** Words of reviews: rounds in which members are asked about a kept state. */
export const reviewWords = {
  part: "Which part",
  parts: { comments: "Comments", review: "Review" },
  explain:
    "What the version holds now is kept, and those you choose are asked about it. An approval holds until the next change.",
  reviewers: "Who is asked",
  question: "Question",
  questionHint: "What are they to look at?",
  due: "Answers by",
  ask: "Ask for a review",
  none: "No review has been asked for.",
  nobody: "There is nobody else yet. An owner adds members.",
  states: {
    asked: "Waiting for answers",
    approved: "Approved",
    rejected: "Rejected",
    withdrawn: "Withdrawn",
  },
  lapsed: "changed since, so that it holds no more",
  holds: "holds for what is here now",
  of: (name: string, at: string, revision: number) => `Asked by ${name}, ${at}, of revision ${revision}`,
  until: (day: string) => `Answers by ${day}`,
  answers: { approve: "Approve", remarks: "Approve with remarks", reject: "Reject" },
  answered: { approve: "approves", remarks: "approves with remarks", reject: "rejects" },
  waiting: "has not answered yet",
  note: "Note",
  noteHint: "A remark, or the reason",
  needsNote: "Say in a note what is remarked or why it is rejected.",
  withdraw: "Withdraw",
  compare: "What has changed since",
  earlier: (count: number) => `${counted(count, "earlier round")}`,
  asking: "ask for a review",
  asked: (revision: number) => `Revision ${revision} is in review.`,
  remind: (process: string, days: number) =>
    days < 0
      ? `A review of ${process} waits for your answer, and its day is over.`
      : `A review of ${process} waits for your answer until ${days === 0 ? "today" : "tomorrow"}.`,
  toIt: "To the review",
  mineTitle: "Reviews that wait for you",
  mine: (count: number) => `${counted(count, "review")} ${count === 1 ? "waits" : "wait"} for you`,
  overdue: "overdue",
};
