import { gunzipSync, gzipSync } from "node:zlib";
import { describe, expect, test } from "vitest";
import type { LogRow } from "@/contract/evidence";
import { writeBpmn } from "@/core/bpmn";
import { openedLog, packedLog, readLogCsv } from "@/core/evidence";
import { expectOk, smallModel } from "@/core/testing/models";
import { startPeer } from "../testing/peers";
import { preparedFolder } from "../testing/workspace";

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A log large enough that keeping it takes a while. */
const cases = 20_000;
const rows = Array.from({ length: cases }, (_, at) => `${at},Register ${at % 97},2027-01-01\n${at},File,2027-01-02\n`);
const bytes = new Uint8Array(
  gzipSync(packedLog(expectOk(readLogCsv(["case,activity,time\n", ...rows]))), { level: 0 }),
);
const facts = { cases, events: 2 * cases, first: null, last: null };

describe("killed while logs are kept", () => {
  test.each([60, 250, 700])(
    "%i ms into it: each that was acknowledged is there whole, none in part, and more can be kept",
    async (after) => {
      const folder = preparedFolder();
      const first = startPeer({ LANE_DATA: folder });
      await first.ready;
      await first.run("createArea", { id: "area", name: "Area", parent: null });
      const { version } = await first.run<{ version: string }>("importFile", {
        name: "a.bpmn",
        area: "area",
        bytes: new TextEncoder().encode(writeBpmn(smallModel())),
      });
      const acknowledged: string[] = [];
      const keep = async () => {
        for (let count = 0; ; count++) {
          const log = `log-${count}`;
          await first.run("keepLog", { version, log, name: log, facts, bytes });
          acknowledged.push(log);
        }
      };
      const keeping = keep().catch(() => undefined);
      await pause(after);
      await first.kill();
      await keeping;
      const next = startPeer({ LANE_DATA: folder });
      await next.ready;
      try {
        const kept = async () => (await next.run<{ logs: LogRow[] }>("listLogs", { version })).logs.map(({ id }) => id);
        const there = await kept();
        for (const log of acknowledged) expect(there).toContain(log);
        for (const log of there) {
          const { bytes: content } = await next.run<{ bytes: Uint8Array }>("logContent", { version, log });
          expect(expectOk(openedLog(new Uint8Array(gunzipSync(content)))).cases).toHaveLength(cases);
        }
        // What was under way is asked for once more, as a window does whose answer was lost.
        const asked = `log-${acknowledged.length}`;
        await next.run("keepLog", { version, log: asked, name: asked, facts, bytes });
        expect((await kept()).filter((log) => log === asked)).toHaveLength(1);
      } finally {
        await next.kill();
      }
    },
  );
});
