// @vitest-environment jsdom
import { screen, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, test } from "vitest";
import { openLive } from "@/app/testing/live";
import type { OpenRun } from "@/contract/live";
import { chain, end, file, modelOf, processOf, start, task } from "@/core/live/testing/models";
import { type Element, type LiveTarget, targetsOf } from "@/core/model";
import { performAll } from "@/core/testing/models";
import { lookAtTargets } from "@/server/live/ticking";
import { run, storedModel } from "@/server/testing/workspace";

const plain = modelOf(
  file(processOf(`${start}${task("first")}${task("second")}${end}${chain("s", "first", "second", "e")}`)),
);

let live: Awaited<ReturnType<typeof openLive>>;
afterEach(() => live.app.close());
const open = async (model = plain) => {
  live = await openLive(model);
  await live.start();
  await live.choose(/^Targets/);
  return within(await screen.findByTestId("targets"));
};
const kept = async (id: string): Promise<readonly LiveTarget[]> =>
  targetsOf((await storedModel(live.version)).elements.get(id) as Element);
const adding = () => within(screen.getByRole("group", { name: "Add the target" }));
const write = async (label: string, value: string) => {
  const field = adding().getByLabelText(label);
  await live.app.user.clear(field);
  if (value !== "") await live.app.user.type(field, value);
};
const add = () => live.press("Add the target", adding());

describe("a target", () => {
  test("of the whole process: said as a sentence, kept in the model, taken away again, and back by undo", async () => {
    const targets = await open();
    targets.getByText(/No target yet/);
    await write("Within", "2 days");
    await write("Share", "80 %");
    await add();
    await targets.findByText("80 % of all cases are done within 2 days (last 30 days)");
    targets.getByText("nothing to measure yet");
    await waitFor(async () =>
      expect(await kept("p")).toEqual([{ what: "duration", seconds: 172_800, share: 0.8, days: 30 }]),
    );
    await live.press(/^Remove: 80 %/, targets);
    await targets.findByText(/No target yet/);
    await live.app.user.keyboard("{Control>}z{/Control}");
    await targets.findByText("80 % of all cases are done within 2 days (last 30 days)");
  });

  /** Each kind, of what, with what is said besides; what is kept, and how it reads. */
  const kinds: readonly [string, string, readonly [string, string][], Partial<LiveTarget>, RegExp][] = [
    [
      "is begun within",
      "first",
      [["Within", "4 h"]],
      { what: "waiting", seconds: 14_400 },
      /90 % of first are begun within 4 h/,
    ],
    [
      "costs at most",
      "second",
      [["At most", "12,50"]],
      { what: "cost", amount: 12.5 },
      /90 % of second cost at most 12.5/,
    ],
    [
      "is right the first time",
      "the whole process",
      [["Share", "95"]],
      { what: "firstTime", share: 0.95 },
      /95 % of all cases are right/,
    ],
    [
      "is done more than once",
      "first",
      [["Share", "5 %"]],
      { what: "rework", share: 0.05 },
      /at most 5 % of the cases do first more than once/,
    ],
  ];
  test("is one of several kinds, of the process or of a step, with what belongs to it", async () => {
    const targets = await open();
    for (const [what, of, more, target, words] of kinds) {
      await live.app.user.selectOptions(adding().getByLabelText("Of"), of);
      await live.app.user.selectOptions(adding().getByLabelText("What"), what);
      await write("Share", "90 %");
      for (const [label, value] of more) await write(label, value);
      await add();
      await targets.findByText(words);
      await waitFor(async () =>
        expect((await kept(of === "the whole process" ? "p" : of)).at(-1)).toMatchObject(target),
      );
    }
    expect(await kept("first")).toHaveLength(2);
  });

  test("of a path leads from one step through another", async () => {
    const targets = await open();
    await live.app.user.selectOptions(adding().getByLabelText("Of"), "first");
    await live.app.user.selectOptions(adding().getByLabelText("Through"), "second");
    await add();
    await targets.findByText("90 % of first through second are done within 5 days (last 30 days)");
    await waitFor(async () => expect(await kept("first")).toMatchObject([{ until: "second" }]));
  });

  test("that cannot be read is told to be none, and nothing is kept", async () => {
    await open();
    for (const [label, value, right] of [
      ["Within", "soon", "2 days"],
      ["Share", "many", "90 %"],
      ["Share", "120 %", "90 %"],
      ["Looked at (days)", "0", "30"],
    ] as const) {
      await write(label, value);
      await add();
      expect((await screen.findByRole("alert")).textContent).toContain(`“${value}” cannot be read`);
      await write(label, right);
    }
    expect(await kept("p")).toEqual([]);
  });

  test("that breaks is an alert until somebody has seen it, with a reason", async () => {
    const broken = performAll(plain, {
      type: "setTargets",
      id: "first",
      targets: [{ what: "waiting", seconds: 60, share: 0.9, days: 30 }],
    });
    const targets = await open(broken);
    await targets.findByText("nothing to measure yet");
    await live.press("Begin a case");
    await live.press("Begin", await live.dialog());
    // Three days pass before somebody begins.
    const { now } = await run<OpenRun>("openRun", await live.at());
    await run("setClock", { ...(await live.at()), to: Number(now) + 3 * 86_400_000 });
    const [wait] = (await live.held()).waits;
    await run("completeWork", { ...(await live.at()), number: 1, wait: wait?.wait, act: "late", values: {} });
    await targets.findByText("0 % of 1, broken");
    // The server looks now and then.
    expect(await lookAtTargets()).toBe(1);
    await live.press("I have seen it", targets);
    const asked = await live.dialog();
    await live.app.user.type(asked.getByRole("textbox"), "Ole was ill.");
    await live.press("I have seen it", asked);
    await waitFor(() => expect(targets.queryByRole("button", { name: "I have seen it" })).toBeNull());
    // Still broken, but nobody has to be told any more.
    targets.getByText("0 % of 1, broken");
  });
});
