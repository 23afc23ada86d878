import type { Id, Model } from "@/core/model";
import { calledName } from "@/jobs/called";

/** The models a forecast is made with: one, and what it calls. */
export const withCalled = (model: Model, called: ReadonlyMap<Id, Model>): { readonly [name: string]: Model } => ({
  model,
  ...Object.fromEntries([...called].map(([calls, one]) => [calledName(calls), one])),
});
