import { type Description, readDescription } from "@/core/descriptions";
import type { Problem } from "@/core/model";
import type { Job } from "./job";

/** Reads a description of services; what is wrong with it, where it cannot be read. */
export const describedServices: Job<
  {
    readonly name: string;
    readonly text: string;
    /** What was given together with it: a file it leads to is found by its path, or by its name alone. */
    readonly beside: readonly { readonly name: string; readonly text: string }[];
  },
  Description | { readonly problem: Problem | undefined }
> = (_, { name, text, beside }) => {
  const nameIn = (path: string) => path.slice(path.lastIndexOf("/") + 1);
  const readBeside = (path: string) => {
    const found = beside.find((one) => one.name === path) ?? beside.find((one) => nameIn(one.name) === nameIn(path));
    return found && new TextEncoder().encode(found.text);
  };
  const read = readDescription({ name, bytes: new TextEncoder().encode(text), beside: readBeside });
  return read.ok ? read.value : { problem: read.problems[0] };
};
