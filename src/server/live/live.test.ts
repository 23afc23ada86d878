import { createServer } from "node:http";
import { afterAll, beforeEach, describe, expect, test, vi } from "vitest";
import type { CaseRow, TargetRow } from "@/contract/live";
import { chain, edge, end, file, flow, node, processOf, start, task, timer } from "@/core/live/testing/models";
import { fileUseCases, localMember, memberSaid, runUseCase, useCases } from "@/server";
import { leaveWorkspace, openWorkspace, run, send } from "../testing/workspace";
import { act, started } from "./testing/startedRun";
import { lookAtTargets, passTime } from "./ticking";
import { alertAddress } from "./webhook";

beforeEach(() => openWorkspace());
afterAll(leaveWorkspace);

const sequence = file(processOf(start + task("first") + task("second") + end + chain("s", "first", "second", "e")));
const choice = file(
  processOf(
    start +
      task("ask") +
      node("exclusiveGateway", "g") +
      task("a") +
      task("b") +
      end +
      chain("s", "ask", "g") +
      flow("g", "a", "n > 1", "fa") +
      flow("g", "b", "n < 0", "fb") +
      chain("a", "e") +
      chain("b", "e"),
  ),
);

describe("a run", () => {
  test("cases go from one worklist to the next, with data and an audit", async () => {
    const { begin, work, open, complete, monitor } = await started(sequence);
    const number = await begin({ power: 5 });
    expect((await work()).map(({ label, number: at }) => [label, at])).toEqual([["first", number]]);
    await complete("first", { roof: "flat" });
    expect((await work()).map(({ label }) => label)).toEqual(["second"]);
    expect((await monitor()).standing.find(({ element }) => element === "second")?.waiting).toBe(1);
    await complete("second");
    const { row, data, audit, path } = await open(number);
    expect(row.state).toBe("completed");
    expect(data).toEqual({ power: 5, roof: "flat" });
    expect(audit.filter(({ kind }) => kind === "completed work").map(({ name, member }) => [name, member])).toEqual([
      ["first", "Mara Aldous"],
      ["second", "Mara Aldous"],
    ]);
    expect(path.map(({ element }) => element)).toEqual(["s", "first", "second", "e"]);
    expect((await monitor()).run).toMatchObject({ open: 0, cases: 1 });
  });

  test("what was asked for once more after a lost answer is not done twice", async () => {
    const { at, begin, work, open } = await started(sequence);
    const same = { ...at, act: "same", values: {} };
    const one = await run<{ number: number }>("beginLiveCase", same);
    expect(await run("beginLiveCase", same)).toEqual(one);
    const [item] = await work();
    if (!item) throw new Error("no work");
    const done = { ...at, number: item.number, wait: item.wait, act: "done", values: {} };
    await run("completeWork", done);
    await run("completeWork", done);
    expect((await work()).map(({ label }) => label)).toEqual(["second"]);
    expect((await open(one.number)).audit.filter(({ kind }) => kind === "completed work")).toHaveLength(1);
    await begin();
    await expect(run("completeWork", { ...done, act: "again" })).rejects.toMatchObject({ code: "gone" });
    // Also when the run has ended meanwhile: it was done.
    await run("endRun", at);
    await run("completeWork", done);
    await expect(run("completeWork", { ...done, act: "anew" })).rejects.toMatchObject({ code: "run-ended" });
  });

  test("of many who complete the same work at once one does it, and the others are told", async () => {
    const { at, begin, work } = await started(sequence);
    await begin();
    const [item] = await work();
    if (!item) throw new Error("no work");
    const tries = await Promise.allSettled(
      Array.from({ length: 6 }, () =>
        run("completeWork", { ...at, number: item.number, wait: item.wait, act: act(), values: {} }),
      ),
    );
    expect(tries.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
    expect((await work()).map(({ label }) => label)).toEqual(["second"]);
  });

  test("work is taken on, given back and handed over; what others have is theirs", async () => {
    const { at, begin, work } = await started(sequence);
    await run("setMember", { id: "ines", name: "Ines Orr", roles: [] });
    await begin();
    const [item] = await work();
    if (!item) throw new Error("no work");
    const on = { ...at, number: item.number, wait: item.wait };
    await run("assignWork", { ...on, act: act(), to: "member-local" });
    expect((await work())[0]?.memberName).toBe("Mara Aldous");
    await run("saveWork", { ...on, act: act(), values: { roof: "half" } });
    await run("assignWork", { ...on, act: act(), to: "ines" });
    expect(await work()).toEqual([]);
    await expect(run("completeWork", { ...on, act: act(), values: {} })).rejects.toMatchObject({ code: "taken" });
    await run("assignWork", { ...on, act: act(), to: null });
    const opened = await run<{ draft: object }>("openWork", on);
    expect(opened.draft).toEqual({ roof: "half" });
    await run("completeWork", { ...on, act: act(), values: {} });
  });
});

describe("time", () => {
  test("a timer goes off when the clock comes to it, and only then", async () => {
    const { at, begin, monitor, complete } = await started(
      file(
        processOf(
          start +
            task("a") +
            edge("late", "a", timer("timeDuration", "P2D")) +
            task("remind") +
            end +
            node("endEvent", "e2") +
            chain("s", "a", "e") +
            chain("late", "remind", "e2"),
        ),
      ),
    );
    await begin();
    const before = await monitor();
    expect(await passTime()).toBe(0);
    await run("setClock", { ...at, to: before.now + 86_400_000 });
    expect(await passTime()).toBe(0);
    await run("setClock", { ...at, to: "next" });
    expect((await monitor()).now).toBe(before.now + 2 * 86_400_000);
    expect(await passTime()).toBe(1);
    await complete("remind");
    expect((await monitor()).run.open).toBe(0);
    await expect(run("setClock", { ...at, to: 0 })).rejects.toMatchObject({ code: "back-in-time" });
    await expect(run("setClock", { ...at, to: "next" })).rejects.toMatchObject({ code: "nothing-next" });
  });

  test("a clock that is sped up comes there by itself", async () => {
    const { begin, monitor } = await started(
      file(
        processOf(
          start + node("intermediateCatchEvent", "t", timer("timeDuration", "PT30M")) + end + chain("s", "t", "e"),
        ),
      ),
      10_000,
    );
    await begin();
    // Half an hour passes in 0.18 seconds.
    await vi.waitFor(async () => expect(await passTime()).toBe(1), { timeout: 25_000 });
    expect((await monitor()).run.open).toBe(0);
  });
});

describe("services", () => {
  const serviced = file(processOf(start + node("serviceTask", "call") + end + chain("s", "call", "e")));
  const standIn = (more: object) => ({
    latency: { kind: "constant", value: 10 },
    failure: 0,
    tries: 2,
    pause: 60,
    answers: [],
    error: "",
    ...more,
  });

  test("a stand-in answers after its time, with the line that fits", async () => {
    const { at, begin, open } = await started(serviced);
    await run("setStandIn", {
      ...at,
      element: "call",
      standIn: standIn({
        answers: [
          { when: "power > 10", values: { size: "large" } },
          { when: "", values: { size: "small" } },
        ],
      }),
    });
    const number = await begin({ power: 20 });
    expect(await passTime()).toBe(0);
    await run("setClock", { ...at, to: "next" });
    await passTime();
    expect((await open(number)).data).toEqual({ power: 20, size: "large" });
    expect((await open(number)).row.state).toBe("completed");
  });

  test("one that fails is tried again with growing pauses, then somebody has to look; retried it goes on", async () => {
    const { at, begin, waits, monitor, open } = await started(serviced);
    await run("setStandIn", { ...at, element: "call", standIn: standIn({ failure: 1 }) });
    const number = await begin();
    const began = (await monitor()).now;
    for (const after of [10, 70]) {
      await run("setClock", { ...at, to: "next" });
      expect((await monitor()).now).toBe(began + after * 1000);
      await passTime();
    }
    const [incident] = await waits("incident");
    expect(incident).toMatchObject({ number, reason: "the service failed", label: "call" });
    const standing = (await monitor()).standing.find(({ element }) => element === "call");
    expect(standing).toMatchObject({ incidents: 1, waiting: 0 });
    await run("setStandIn", { ...at, element: "call", standIn: standIn({}) });
    await run("retryIncident", { ...at, number, wait: incident?.wait, act: act() });
    await run("setClock", { ...at, to: "next" });
    await passTime();
    expect((await open(number)).row.state).toBe("completed");
    expect((await open(number)).audit.map(({ kind }) => kind)).toContain("retried");
  });
});

describe("a supervisor", () => {
  test("mends data, leads on, leaves out and repeats steps, each with a reason in the audit", async () => {
    const { at, begin, complete, waits, open, work } = await started(choice);
    const number = await begin();
    await complete("ask", { n: 0 });
    const [incident] = await waits("incident");
    expect(incident?.reason).toContain("no condition holds");
    await expect(run("setCaseData", { ...at, number, act: act(), values: { n: 5 }, reason: " " })).rejects.toThrow();
    await run("setCaseData", { ...at, number, act: act(), values: { n: 5 }, reason: "mistyped" });
    const [item] = await work();
    expect(item?.label).toBe("a");
    // Back to the step before: it is done once more.
    await run("moveToken", {
      ...at,
      number,
      wait: item?.wait,
      act: act(),
      to: "ask",
      reason: "asked the wrong person",
    });
    expect((await work()).map(({ label }) => label)).toEqual(["ask"]);
    await complete("ask", { n: 0.5 });
    const [again] = await waits("incident");
    await run("leadOn", {
      ...at,
      number,
      wait: again?.wait,
      act: act(),
      flows: ["fb"],
      reason: "settled by telephone",
    });
    const [last] = await work();
    await run("skipStep", { ...at, number, wait: last?.wait, act: act(), reason: "done on paper" });
    const { row, audit } = await open(number);
    expect(row.state).toBe("completed");
    expect(audit.flatMap(({ kind, reason }) => (reason && kind !== "incident" ? [[kind, reason]] : []))).toEqual([
      ["data changed", "mistyped"],
      ["moved", "asked the wrong person"],
      ["led on", "settled by telephone"],
      ["skipped", "done on paper"],
    ]);
  });

  test("a suspended case stands still until it is resumed; a cancelled one is over", async () => {
    const { at, begin, work, complete, open } = await started(sequence);
    const number = await begin();
    await run("suspendCase", { ...at, number, act: act(), isSuspended: true, reason: "a question is open" });
    expect(await work()).toEqual([]);
    await run("suspendCase", { ...at, number, act: act(), isSuspended: false, reason: "answered" });
    await complete("first");
    await run("cancelCase", { ...at, number, act: act(), reason: "withdrawn" });
    expect((await open(number)).row.state).toBe("cancelled");
    expect(await work()).toEqual([]);
    await expect(run("cancelCase", { ...at, number, act: act(), reason: "again" })).rejects.toMatchObject({
      code: "over",
    });
  });
});

test("simulated members finish some cases and leave others open; lists page and filter", async () => {
  const { at, monitor } = await started(sequence);
  const { cases } = await run<{ cases: number }>("runStaff", { ...at, days: 30, most: 60 });
  expect(cases).toBe(60);
  expect((await monitor()).run).toMatchObject({ cases: 60 });
  const page = await run<{ cases: CaseRow[]; total: number }>("listCases", {
    ...at,
    state: "over",
    count: 10,
    from: 10,
  });
  expect(page.cases).toHaveLength(10);
  expect(page.total).toBeGreaterThan(50);
  const found = await run<{ cases: CaseRow[] }>("listCases", { ...at, text: "7" });
  expect(found.cases.map(({ number }) => number)).toContain(7);
});

test("a target that breaks is an alert once, told to the address on this machine, until a member has seen it", async () => {
  const { version, at } = await started(sequence);
  const told: unknown[] = [];
  const server = createServer((request, response) => {
    let body = "";
    request.on("data", (part) => {
      body += part;
    });
    request.on("end", () => {
      told.push(JSON.parse(body));
      response.end("{}");
    });
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  process.env.LANE_ALERTS = `http://127.0.0.1:${(server.address() as { port: number }).port}/alerts`;
  try {
    await run("runStaff", { ...at, days: 30, most: 50 });
    const strict = { what: "duration", seconds: 60, share: 0.9, days: 30 } as const;
    const mild = { what: "duration", seconds: 30 * 86_400, share: 0.5, days: 30 } as const;
    await send(version, { type: "setTargets", id: "p", targets: [strict, mild] });
    await send(version, { type: "setTargets", id: "first", targets: [{ ...strict, what: "rework", share: 0.1 }] });
    expect(await lookAtTargets()).toBe(1);
    expect(await lookAtTargets()).toBe(0);
    const listed = await run<{ targets: TargetRow[]; alerts: number }>("listTargets", at);
    expect(listed.targets.map(({ target, measured, alert }) => [target.what, measured.isKept, alert !== null])).toEqual(
      [
        ["duration", false, true],
        ["duration", true, false],
        ["rework", true, false],
      ],
    );
    expect(told).toMatchObject([{ broken: [{ run: "Trial", target: strict }] }]);
    const alert = listed.targets[0]?.alert?.id;
    await run("acknowledgeAlert", { ...at, alert, reason: "two people were ill" });
    await run("acknowledgeAlert", { ...at, alert, reason: "two people were ill" });
    expect((await run<{ alerts: number }>("listTargets", at)).alerts).toBe(0);
    expect(alertAddress({ LANE_ALERTS: "http://elsewhere.invalid/x" } as unknown as NodeJS.ProcessEnv)).toBeUndefined();
  } finally {
    delete process.env.LANE_ALERTS;
    server.close();
  }
});

test("a message from outside has come when somebody says so, with what it says", async () => {
  const { at, begin, waits, open } = await started(
    file(processOf(start + node("receiveTask", "papers") + end + chain("s", "papers", "e"))),
  );
  const number = await begin();
  const [message] = await waits("message");
  expect(message?.label).toBe("papers");
  await run("letHappen", { ...at, number, wait: message?.wait, act: act(), values: { pages: 3 } });
  expect(await open(number)).toMatchObject({ row: { state: "completed" }, data: { pages: 3 } });
});

test("members are listed with their roles, and see the work of these", async () => {
  const lanes = `<laneSet id="ls"><lane id="l1" name="Front desk"><flowNodeRef>first</flowNodeRef></lane></laneSet>`;
  const { version, at, begin } = await started(
    file(processOf(lanes + start + task("first") + task("second") + end + chain("s", "first", "second", "e"))),
  );
  await run("setMember", { id: "pia", name: "Pia Sund", roles: ["role-crew"] });
  const { members, me } = await run<{ members: { id: string; roles: string[] }[]; me: string }>("listMembers", {});
  expect(me).toBe("member-local");
  expect(members.find(({ id }) => id === "pia")?.roles).toEqual(["role-crew"]);
  await begin();
  const { model } = await run<{ model: { elements: unknown[] } }>("runModel", at);
  expect(model.elements.length).toBeGreaterThan(5);
  const pia = await memberSaid("pia");
  expect(pia.name).toBe("Pia Sund");
  expect((await memberSaid("nobody")).id).toBe("member-local");
  const { items } = (await runUseCase(pia, useCases.listWork, { whose: "open" })) as {
    items: readonly unknown[];
  };
  // The lane stands for no role of the directory, so anybody may do it.
  expect(items).toHaveLength(1);
  expect(version).toBeTruthy();
});

test("a log is given for programs and for spreadsheets, with names or without", async () => {
  const { at } = await started(sequence);
  await run("runStaff", { ...at, days: 10, most: 5 });
  const log = (as: string, isAnonymised = false) =>
    runUseCase(localMember, fileUseCases.downloadLog, { ...at, as, isAnonymised }) as Promise<{
      text: string;
      name: string;
    }>;
  const xes = await log("xes");
  expect(xes.name).toBe("trial.xes");
  expect(xes.text).toContain('<string key="concept:name" value="first"/>');
  expect((await log("csv")).text).toContain("case,activity,timestamp,lifecycle,role");
  expect((await log("csv", true)).text).toContain("Case 1,first,");
});

test("an ended run takes nothing any more", async () => {
  const { at, begin, work } = await started(sequence);
  await begin();
  await run("endRun", at);
  expect(await work()).toEqual([]);
  await expect(begin()).rejects.toMatchObject({ code: "run-ended" });
});
