import type { OpenCase, OpenRun, WaitRow, WorkItem } from "@/contract/live";
import { modelOf } from "@/core/live/testing/models";
import { importModel, run } from "../../testing/workspace";

let acts = 0;
/** A name for an act that nobody has asked for before. */
export const act = () => `act-${++acts}`;

/** A run of a process, with the clock standing unless it is said otherwise. */
export async function started(text: string, pace = 0) {
  const version = await importModel("Process", modelOf(text));
  await run("startRun", { version, run: "r", name: "Trial", pace });
  const at = { version, run: "r" };
  const begin = async (values: object = {}, more: object = {}) =>
    (await run<{ number: number }>("beginLiveCase", { ...at, act: act(), values, ...more })).number;
  const work = async () => (await run<{ items: WorkItem[] }>("listWork", {})).items;
  const open = (number: number) => run<OpenCase>("openCase", { ...at, number });
  const complete = async (label: string, values: object = {}) => {
    const item = (await work()).find((one) => one.label === label);
    if (!item) throw new Error(`no work called ${label}`);
    return run("completeWork", { ...at, number: item.number, wait: item.wait, act: act(), values });
  };
  const monitor = () => run<OpenRun>("openRun", at);
  const waits = async (...kinds: string[]) => (await run<{ waits: WaitRow[] }>("listWaits", { ...at, kinds })).waits;
  return { version, at, begin, work, open, complete, monitor, waits };
}
