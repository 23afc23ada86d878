import { walk as walkTerms } from "@/contract";
import type { WalkTestRow } from "@/contract/walk";
import type { WalkTest } from "@/core/tokens";
import { ask } from "../../kernel/ask";
import { doAct } from "../../kernel/history";
import { text } from "../../messages";

type Named = { readonly name: string; readonly content: WalkTest };

/** Keeps walks, noted: taking that back gives them up. */
export const keepWalks = (version: string, tests: readonly Named[]) =>
  doAct(
    text.walk.keptNow(tests.length === 1 ? (tests[0]?.name ?? "") : String(tests.length)),
    async () => (await ask(walkTerms.keepWalkTests, { version, tests: [...tests] })).ids,
    (ids) => Promise.all(ids.map((test) => ask(walkTerms.deleteWalkTest, { version, test }))),
  );

/** Changes a kept walk, noted. */
export const changeWalk = (version: string, test: WalkTestRow, change: Partial<Named>) =>
  doAct(
    text.walk.changedNow(test.name),
    () => ask(walkTerms.changeWalkTest, { version, test: test.id, ...change }),
    () => ask(walkTerms.changeWalkTest, { version, test: test.id, name: test.name, content: test.content }),
  );

/** Gives a kept walk up, noted: taking that back keeps it again. */
export const dropWalk = (version: string, { id, name, content }: WalkTestRow) => {
  let test = id;
  return doAct(
    text.walk.droppedNow(name),
    () => ask(walkTerms.deleteWalkTest, { version, test }),
    async () => {
      const { ids } = await ask(walkTerms.keepWalkTests, { version, tests: [{ name, content }] });
      test = ids[0] ?? test;
    },
  );
};
