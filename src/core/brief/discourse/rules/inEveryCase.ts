import type { TurnOfPhrase } from "./rule";

const every =
  /^(?:in (?:either|any|every|each|both|all) cases?|either way|in the end|finally|at last|lastly|eventually)\b/i;

/** "In either case": where all ways have met again. */
export const inEveryCase: TurnOfPhrase = {
  name: "in every case",
  examples: [
    {
      text: "If [decision: it rains], the [role: crew] [activity: covers the sand]; otherwise it [activity: waters it]. In either case the crew [activity: locks the gate].",
      reads: ["It rains?", "  yes", "    Cover sand", "  no", "    Water sand", "Lock gate"],
    },
  ],
  read: ({ part, course }) => {
    const isSaid = every.test(part.lead) || /\bin (?:either|any|every|both) cases?\b/i.test(part.words);
    if (isSaid && !/^in all other/i.test(part.lead)) course.here = course.root;
    return false;
  },
};
