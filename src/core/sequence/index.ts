export { type DrawnSequence, drawSequence } from "./drawn";
export { sequenceOfProcess } from "./ofProcess";
export { sequenceOfWalk } from "./ofWalk";
export type { Lifeline, Operator, Sequence, SequenceLine } from "./sequence";
