/** Every long work that can be asked for in the browser and on the server alike. */
import { findings, soundness } from "./findings";
import { performAll } from "./perform";
import { tidyPage, writeSteps } from "./steps";
import { walks } from "./walks";

export const jobs = { findings, performAll, soundness, tidyPage, walks, writeSteps } as const;
export type Jobs = typeof jobs;

export type { Job, Models, Tell } from "./job";
export type { ListWritten, LongList } from "./steps";
export { freshId } from "./steps";
export { calledName } from "./walks";

/** What a job of a register is given, besides models, and what it comes to. */
export type InputOf<Register, Name extends keyof Register> = Register[Name] extends (
  models: never,
  input: infer Input,
  tell: never,
) => unknown
  ? Input
  : never;
export type OutputOf<Register, Name extends keyof Register> = Register[Name] extends (
  models: never,
  input: never,
  tell: never,
) => infer Output
  ? Awaited<Output>
  : never;
