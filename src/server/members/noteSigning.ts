import { note } from "../kernel/audit";
import { ownAct } from "../kernel/useCase";

/** Notes what became of signing in or out; of somebody unknown there is no member. */
export const noteSigning = (what: {
  readonly member: string;
  readonly act: string;
  readonly isRefused?: boolean;
}): Promise<void> => ownAct(what.act, [], ({ db }) => note(db, { ...what, things: [{ kind: "workspace" }] }));
