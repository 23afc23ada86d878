import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import type { BuildCopyRow } from "@/contract/handoff";
import { readBpmn } from "@/core/bpmn";
import { type Peer, startPeer } from "../testing/peers";
import { preparedFolder } from "../testing/workspace";

/** Nothing is wrong with it, so that it may leave. */
const checked = `<definitions xmlns="http://www.omg.org/spec/BPMN/20100524/MODEL" id="d" targetNamespace="urn:quillmere"><process id="p" name="Connect a plant">
  <startEvent id="start" name="Application received"/><userTask id="check" name="Check application"/><endEvent id="end" name="Application checked"/>
  <sequenceFlow id="f1" sourceRef="start" targetRef="check"/><sequenceFlow id="f2" sourceRef="check" targetRef="end"/></process></definitions>`;
const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A process that sends change after change, killed with SIGKILL; another one goes on with what both sides hold. */
describe.each(["git", "folder"] as const)("killed while it sends to a %s", (kind) => {
  test.each([300, 1_100])(
    "for %i ms: the developers' file is whole, the state is found by content, and going on is safe",
    async (after) => {
      const around = mkdtempSync(join(tmpdir(), "lane-sending-"));
      const [bare, root] = [join(around, "developers.git"), join(around, "shared")];
      execFileSync("git", ["init", "--quiet", "--bare", bare]);
      mkdirSync(root);
      const env = { LANE_DATA: preparedFolder(), LANE_BUILDS: `folder:${root} git:${bare}` };
      const file = () =>
        kind === "git"
          ? execFileSync("git", ["-C", bare, "show", "lane/connect:connect.bpmn"], { encoding: "utf8" })
          : readFileSync(join(root, "connect.bpmn"), "utf8");

      const first = startPeer(env);
      await first.ready;
      await first.run("createArea", { id: "area", name: "Area", parent: null });
      const { version } = await first.run<{ version: string }>("importFile", {
        name: "Connect.bpmn",
        area: "area",
        bytes: new TextEncoder().encode(checked),
      });
      const { places } = await first.run<{ places: { id: string; kind: string }[] }>("lookAtBuildCopies", { version });
      const { copy } = await first.run<{ copy: string }>("tieBuildCopy", {
        version,
        place: places.find((place) => place.kind === kind)?.id,
        branch: kind === "git" ? "lane/connect" : "",
        path: "connect.bpmn",
      });
      await first.run("sendToBuildCopy", { version, copy });
      let [sequence, acknowledged] = [0, ""];
      const change = async (peer: Peer, name: string) => {
        const { sequence: base } = await peer.run<{ sequence: number }>("openVersion", { version });
        const commands = [{ type: "rename", id: "check", name }];
        ({ sequence } = await peer.run<{ sequence: number }>("applyCommands", {
          version,
          batch: name,
          base,
          commands,
        }));
      };
      const working = (async () => {
        for (let at = 1; ; at++) {
          await change(first, `Check ${at}`);
          await first.run("sendToBuildCopy", { version, copy });
          acknowledged = `Check ${at}`;
        }
      })().catch(() => undefined);
      // On a busy machine the first change takes longer than the pause: it is waited for, so that something is under way behind it.
      while (sequence === 0) await pause(20);
      await pause(after);
      await first.kill();
      await working;
      expect(sequence).toBeGreaterThan(0);

      // What was acknowledged is there; what was under way is there whole or not at all.
      const held = readBpmn(file());
      if (!held.ok) throw new Error("The developers' file cannot be read.");
      const named = held.value.elements.get("check")?.name ?? "";
      const number = (name: string) => Number(/^Check (\d+)$/.exec(name)?.[1] ?? 0);
      expect(number(named)).toBeGreaterThanOrEqual(number(acknowledged));
      if (kind === "git") execFileSync("git", ["-C", bare, "fsck", "--strict"], { stdio: "pipe" });

      const next = startPeer(env);
      await next.ready;
      try {
        const look = async () =>
          (await next.run<{ copies: BuildCopyRow[] }>("lookAtBuildCopies", { version })).copies[0]?.state;
        expect(["in step", "model changed"]).toContain(await look());
        await change(next, "Go on");
        expect(await look()).toBe("model changed");
        await next.run("sendToBuildCopy", { version, copy });
        expect(await look()).toBe("in step");
        expect(file()).toContain('name="Go on"');
      } finally {
        await next.kill();
      }
    },
    120_000,
  );
});
