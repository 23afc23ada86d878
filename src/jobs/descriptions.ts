import { type Description, readDescription } from "@/core/descriptions";
import type { Problem } from "@/core/model";
import type { Job } from "./job";

/** Reads a description of services; what is wrong with it, where it cannot be read. */
export const describedServices: Job<
  { readonly name: string; readonly text: string },
  Description | { readonly problem: Problem | undefined }
> = (_, { name, text }) => {
  const read = readDescription({ name, bytes: new TextEncoder().encode(text) });
  return read.ok ? read.value : { problem: read.problems[0] };
};
