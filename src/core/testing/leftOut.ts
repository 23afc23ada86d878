import type { EventLog } from "../evidence";

/** What a log names of what was left out, with the reasons in English. */
export const leftIn = ({ left }: EventLog) => left.map((one) => ({ ...one, why: one.why.text }));
