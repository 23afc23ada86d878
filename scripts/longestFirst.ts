import { BaseSequencer, type TestSpecification } from "vitest/node";

/** Files that take long for their size: they kill and start processes, wait for databases, or send thousands of inputs. */
const long = [
  "server/kernel/fuzz",
  "server/kernel/races",
  "server/members/members",
  "server/live/killedRun",
  "server/kernel/compaction",
  "data/folder",
  "server/handoff/buildCopies",
  "server/evidence/killed",
  "server/version/editing",
  "server/handoff/killedSending",
  "server/kernel/killed",
  "cli/contract",
  "cli/lane",
  "cli/evidence",
].map((name) => `/src/${name}.test.ts`);

const place = ({ moduleId }: TestSpecification) => {
  const at = long.findIndex((name) => moduleId.endsWith(name));
  return at < 0 ? long.length : at;
};

/** A run ends when its last file does, so the longest begin; where nothing is known of a file, its size is taken for it. */
export default class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const order = ({ project }: TestSpecification) => project.config.sequence.groupOrder;
    return (await super.sort(files)).sort((a, b) => order(a) - order(b) || place(a) - place(b));
  }
}
