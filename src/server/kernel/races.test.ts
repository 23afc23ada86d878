import { strFromU8, unzipSync } from "fflate";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { readBpmn } from "@/core/bpmn";
import { emptyBrief, markedText } from "@/core/brief";
import { nameOf, type StoredModel, trustStored } from "@/core/model";
import { fileUseCases, localMember, runUseCase } from "@/server";
import { type Peer, startPeer } from "../testing/peers";
import { type PostgresServer, postgresMissing, startPostgres } from "../testing/postgres";
import { closeWorkspace, openWorkspace, run, temporaryFolder } from "../testing/workspace";
import { backgroundDone } from "./background";
import { compact } from "./compaction";

/**
 * Pairs of use cases against each other, at pauses that differ from try to try. On PGlite both stand in this process; on a
 * PostgreSQL server the second is another process of the application, with caches of its own.
 */
type Run = <Output = unknown>(name: string, input: unknown) => Promise<Output>;
const here: Run = (name, input) => run(name as never, input);
const bytesOf = async () => ((await runUseCase(localMember, fileUseCases.backup, {})) as { bytes: Uint8Array }).bytes;
const restoreHere = (bytes: Uint8Array) => runUseCase(localMember, fileUseCases.restore, { bytes });

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));
/** Pauses that are the same in each run. */
function* pauses(): Generator<number> {
  for (let state = 20261127; ; state = (state * 1103515245 + 12345) % 2 ** 31) yield (state / 65536) % 12;
}
const settled = async <Output>(promise: Promise<Output>) =>
  promise.then(
    (value) => ({ ok: true as const, value }),
    (error: { code?: string; status?: number; message: string }) => ({ ok: false as const, error }),
  );

interface Opened {
  readonly sequence: number;
  readonly generation: number;
  readonly model: StoredModel;
}
interface Revision {
  readonly number: number;
  readonly reason: string;
  readonly sequence: number;
}

const databases: readonly ["PGlite" | "PostgreSQL", string | undefined][] = [
  ["PGlite", undefined],
  ["PostgreSQL", postgresMissing],
];

describe.each(databases)("on %s", (database, missing) => {
  describe.skipIf(missing !== undefined)("two at once", () => {
    let server: PostgresServer | undefined;
    let peer: Peer | undefined;
    let there: Run = here;
    const wait = pauses();
    const later = () => pause(wait.next().value as number);

    beforeAll(async () => {
      if (database === "PostgreSQL") {
        server = await startPostgres();
        process.env.DATABASE_URL = server.url;
        process.env.LANE_DATA = temporaryFolder();
      }
      await openWorkspace();
      if (server) {
        peer = startPeer({ DATABASE_URL: server.url });
        await peer.ready;
        there = peer.run as Run;
      }
    }, 120_000);
    afterAll(async () => {
      await peer?.kill();
      await closeWorkspace();
      delete process.env.DATABASE_URL;
      await server?.stop();
    });

    let made = 0;
    const makeEmpty = async () => {
      const key = `p${made++}`;
      if (made === 1) await here("createArea", { id: "area", name: "Connections", parent: null });
      await here("createProcess", { name: `Process ${key}`, area: "area", processId: key, versionId: `${key}-v` });
      return { version: `${key}-v`, process: key };
    };
    /** A process with one sound way through it, so that it can be signed and handed off. */
    const makeProcess = async () => {
      const { version, process } = await makeEmpty();
      const { model } = await here<Opened>("openVersion", { version });
      const diagram = model.diagrams[0]?.id as string;
      const kind = (type: string) => ({ type });
      await edit(here, version, [
        {
          type: "place",
          diagram,
          id: "start",
          kind: kind("startEvent"),
          at: { x: 100, y: 100 },
          name: "Application received",
        },
        {
          type: "append",
          diagram,
          from: "start",
          id: "check",
          flow: "f1",
          kind: kind("userTask"),
          name: "Check application",
        },
        {
          type: "append",
          diagram,
          from: "check",
          id: "end",
          flow: "f2",
          kind: kind("endEvent"),
          name: "Application checked",
        },
      ]);
      return { version, process, diagram };
    };
    let batches = 0;
    const edit = async (by: Run, version: string, commands: unknown[], more: object = {}) => {
      const { sequence } = await by<Opened>("openVersion", { version });
      const batch = `race-${batches++}`;
      return by<{ sequence: number }>("applyCommands", { version, batch, base: sequence, commands, ...more });
    };
    const rename = (by: Run, version: string, name: string) =>
      edit(by, version, [{ type: "rename", id: "check", name }]);
    const modelOf = async (version: string) => trustStored((await here<Opened>("openVersion", { version })).model);
    const revisionsOf = async (version: string) =>
      (await here<{ revisions: Revision[] }>("listRevisions", { version })).revisions;
    const revisionModel = async (version: string, number: number) =>
      trustStored((await here<{ model: StoredModel }>("openRevision", { version, number })).model);

    test("edits by both and reads between them: each edit is there once, and every open works", async () => {
      const { version } = await makeProcess();
      const writer = async (by: Run, who: string, id: string) => {
        for (let at = 0; at < 8; at++) {
          await edit(by, version, [{ type: "setAttribute", id, name: `${who}${at}`, value: String(at) }]);
          await later();
        }
      };
      const reader = async (by: Run) => {
        for (let at = 0; at < 15; at++) {
          await by("openVersion", { version });
          await later();
        }
      };
      await Promise.all([writer(here, "a", "check"), writer(there, "b", "end"), reader(here), reader(there)]);
      const text = JSON.stringify([...(await modelOf(version)).elements]);
      for (let at = 0; at < 8; at++) for (const who of ["a", "b"]) expect(text).toContain(`"${who}${at}"`);
      expect(await there("openVersion", { version })).toMatchObject({ sequence: 17 });
    }, 120_000);

    test("edits that are refused or fail leave no phantom behind", async () => {
      const { version } = await makeProcess();
      const bad = () =>
        settled(
          edit(here, version, [
            { type: "rename", id: "check", name: "Not kept" },
            { type: "rename", id: "nobody", name: "x" },
          ]),
        );
      for (let at = 0; at < 5; at++) {
        await Promise.all([bad(), rename(there, version, `Name ${at}`), here("openVersion", { version }), bad()]);
        expect(nameOf(await modelOf(version), "check")).toBe(`Name ${at}`);
      }
    }, 120_000);

    test("saves of a description while its processes are built: the last acknowledged one is there, and so is what was built", async () => {
      const text =
        "When [trigger#t1: a [party#p1: household] applies], the [role#r1: front desk] [activity#a1: registers the application].";
      for (let at = 0; at < 2; at++) {
        const { version, process } = await makeEmpty();
        const brief = `brief-${process}`;
        const content = (more: string) => ({
          ...emptyBrief,
          organisation: "Quillmere Power Cooperative",
          document: markedText(`${text} ${more}`),
        });
        let { revision } = await here<{ revision: number }>("saveBrief", {
          process,
          brief,
          base: 0,
          content: content(""),
        });
        let last = "";
        const saving = async () => {
          for (let save = 0; save < 12; save++) {
            const more = `Saved ${save}.`;
            const saved = await settled(
              here<{ revision: number }>("saveBrief", { process, brief, base: revision, content: content(more) }),
            );
            if (saved.ok) [last, revision] = [more, saved.value.revision];
            await later();
          }
        };
        const building = async () => {
          await later();
          return there<{ built: unknown[] }>("buildProcesses", { version });
        };
        const [, { built }] = await Promise.all([saving(), building()]);
        expect(built.length).toBe(1);
        const opened = await here<{ brief: { content: { built: object } } }>("openBrief", { process });
        expect(JSON.stringify(opened.brief.content)).toContain("Saved 11.");
        expect(JSON.stringify(opened.brief.content)).toContain(last);
        expect(Object.values(opened.brief.content.built).flat()).toContain("a1");
      }
    }, 180_000);

    test("a signature names a revision that holds what was checked", async () => {
      for (let at = 0; at < 5; at++) {
        const { version, diagram } = await makeProcess();
        const breaking = async () => {
          await later();
          return edit(there, version, [
            {
              type: "place",
              diagram,
              id: "loose",
              kind: { type: "userTask" },
              at: { x: 100, y: 400 },
              name: "Loose step",
            },
          ]);
        };
        const [signed] = await Promise.all([
          settled(here<{ revision: number }>("signVerdict", { version })),
          breaking(),
        ]);
        const revisions = await revisionsOf(version);
        const { verdicts } = await here<{ verdicts: { revision: number; holds: boolean }[] }>("openCheck", { version });
        if (!signed.ok) {
          expect(signed.error.code).toBe("errors-open");
          expect(revisions.filter(({ reason }) => reason === "signed")).toEqual([]);
          continue;
        }
        expect((await revisionModel(version, signed.value.revision)).elements.has("loose")).toBe(false);
        expect(verdicts).toMatchObject([{ revision: signed.value.revision, holds: false }]);
      }
    }, 180_000);

    test("a package holds the revision it names", async () => {
      for (let at = 0; at < 4; at++) {
        const { version } = await makeProcess();
        const renaming = async () => {
          await later();
          return rename(there, version, "Look it through");
        };
        const [handed] = await Promise.all([
          here<{ handoff: string; revision: number }>("handOff", { version }),
          renaming(),
          here("nameRevision", { version, reason: "meanwhile" }),
        ]);
        const { bytes } = (await runUseCase(localMember, fileUseCases.downloadPackage, {
          version,
          handoff: handed.handoff,
        })) as {
          bytes: Uint8Array;
        };
        const read = readBpmn(strFromU8(unzipSync(bytes)["model.bpmn"] as Uint8Array));
        const kept = await revisionModel(version, handed.revision);
        expect(read.ok && nameOf(read.value, "check")).toBe(nameOf(kept, "check"));
      }
    }, 180_000);

    test("states kept by both at once are all kept, each with a number of its own", async () => {
      const { version } = await makeProcess();
      const kept = await Promise.all(
        Array.from({ length: 12 }, (_, at) =>
          (at % 2 ? here : there)<{ number: number }>("nameRevision", { version, reason: `state ${at}` }),
        ),
      );
      expect(kept.map(({ number }) => number).sort((a, b) => a - b)).toEqual(
        Array.from({ length: 12 }, (_, at) => at + 1),
      );
    }, 120_000);

    test("what is adopted is what the to-be held, and what it replaces is kept", async () => {
      for (let at = 0; at < 3; at++) {
        const { version } = await makeProcess();
        const toBe = `${version}-to-be`;
        await here("createToBe", { source: version, name: "To-be", versionId: toBe });
        const work = async () => {
          for (let step = 0; step < 4; step++) {
            await rename(there, toBe, `To-be ${step}`);
            // What was adopted meanwhile is not overwritten without a word.
            const renamed = await settled(rename(there, version, `As-is ${step}`));
            if (!renamed.ok) expect(renamed.error.code).toBe("met");
          }
        };
        const adopting = async () => {
          await later();
          return here<{ number: number }>("adoptToBe", { version: toBe });
        };
        const [, adopted] = await Promise.all([work(), adopting()]);
        expect(nameOf(await revisionModel(version, adopted.number), "check")).toMatch(/^(To-be \d|Check application)$/);
        const before = (await revisionsOf(version)).find(({ reason }) => reason.startsWith("before adopting"));
        expect(nameOf(await revisionModel(version, before?.number as number), "check")).toMatch(
          /^(As-is \d|Check application)$/,
        );
        expect(nameOf(await modelOf(version), "check")).toMatch(/^(As-is \d|To-be \d|Check application)$/);
      }
    }, 180_000);

    test("an entry renamed while versions begin to use it: every version opens and has the name the directory has", async () => {
      const versions = [];
      for (let at = 0; at < 6; at++) versions.push((await makeProcess()).version);
      await here("createEntry", { id: "crew", kind: "system", name: "Crew planner 0" });
      const using = async (version: string) => {
        await later();
        await edit(there, version, [
          { type: "useSystem", step: "check", system: { entry: "crew", name: "Crew planner 0" }, use: "reads" },
        ]);
        for (let at = 0; at < 3; at++) await rename(there, version, `Name ${at}`);
      };
      const renaming = async () => {
        for (let at = 1; at <= 4; at++) {
          await here("changeEntry", { id: "crew", name: `Crew planner ${at}` });
          await later();
        }
      };
      await Promise.all([renaming(), ...versions.map(using)]);
      await here("changeEntry", { id: "crew", name: "Crew planner" });
      for (const version of versions)
        for (const by of [here, there]) {
          const { model } = await by<Opened>("openVersion", { version });
          expect(JSON.stringify(model.elements)).toContain('"Crew planner"');
          expect(nameOf(trustStored(model), "check")).toBe("Name 2");
        }
    }, 180_000);

    test("an area deleted while a process is put into it: both are there, or neither", async () => {
      await makeProcess();
      for (let at = 0; at < 3; at++) {
        const area = `area-${database}-${made}-${at}`;
        await here("createArea", { id: area, name: "Short-lived", parent: null });
        const creating = async () => {
          await later();
          return settled(there<{ process: string }>("createProcess", { name: "Late", area }));
        };
        const [created] = await Promise.all([creating(), here("deleteArea", { id: area })]);
        const home = await here<{ areas: { id: string }[]; processes: { id: string; area: string }[] }>("openHome", {});
        expect(home.processes.filter((process) => process.area === area)).toEqual([]);
        if (!created.ok) expect(created.error.code).toBe("not-found");
      }
    }, 120_000);

    test.skipIf(database === "PGlite")("a kept state is left to the log by one process at a time", async () => {
      const { version } = await makeProcess();
      for (const name of ["One", "Two", "Three"]) {
        await rename(here, version, name);
        await here("nameRevision", { version, reason: name });
      }
      await backgroundDone();
      const { model } = await here<{ model: StoredModel }>("openRevision", { version, number: 2 });
      const another = new pg.Client({ connectionString: process.env.DATABASE_URL as string });
      await another.connect();
      const isWhole = async () => {
        const { rows } = await another.query(
          "select model is not null as whole from revisions where version = $1 and number = 2",
          [version],
        );
        return rows[0]?.whole as boolean;
      };
      expect(await isWhole()).toBe(false);
      await another.query("update revisions set model = $2, built_on = null where version = $1 and number = 2", [
        version,
        JSON.stringify(model),
      ]);
      // What another process holds while it does the same.
      await another.query("select pg_advisory_lock(hashtextextended($1, 0))", [`4 version ${version}`]);
      const compacting = compact(version);
      await pause(1_500);
      expect(await isWhole()).toBe(true);
      await another.query("select pg_advisory_unlock_all()");
      await compacting;
      expect(await isWhole()).toBe(false);
      await another.end();
    });

    test("a backup made during edits is of one moment, and can be restored", async () => {
      const { version } = await makeProcess();
      const editing = async () => {
        for (let at = 0; at < 15; at++) await rename(there, version, `During ${at}`);
      };
      const backups: Uint8Array[] = [];
      const backing = async () => {
        for (let at = 0; at < 3; at++) {
          backups.push(await bytesOf());
          await later();
        }
      };
      await Promise.all([editing(), backing()]);
      for (const bytes of backups) await restoreHere(bytes);
      expect(nameOf(await modelOf(version), "check")).toMatch(/^(During \d+|Check application)$/);
    }, 240_000);

    test("a restore is noticed by who has the former content open: nothing of before is built on", async () => {
      const { version } = await makeProcess();
      await rename(here, version, "In the backup");
      const bytes = await bytesOf();
      await rename(there, version, "After the backup");
      const before = await there<Opened>("openVersion", { version });
      await restoreHere(bytes);
      // The same sequence again, with another content.
      await rename(here, version, "Since the restore");
      const stale = settled(
        there("applyCommands", {
          version,
          batch: "stale",
          base: before.sequence,
          generation: before.generation,
          commands: [{ type: "describe", id: "check", text: "Built on what is gone" }],
        }),
      );
      expect(await stale).toMatchObject({ ok: false, error: { code: "restored" } });
      expect(
        await settled(there("changesSince", { version, base: before.sequence, generation: before.generation })),
      ).toMatchObject({
        ok: false,
        error: { code: "restored" },
      });
      const after = await there<Opened>("openVersion", { version });
      expect(nameOf(trustStored(after.model), "check")).toBe("Since the restore");
      await rename(there, version, "Goes on");
      expect(nameOf(await modelOf(version), "check")).toBe("Goes on");
    }, 120_000);
  });
});

describe.skipIf(postgresMissing !== undefined)("several processes at first start", () => {
  test("one makes the demo, the others wait, and all serve it", async () => {
    const server = await startPostgres();
    const peers = [0, 1, 2].map(() => startPeer({ DATABASE_URL: server.url, LANE_DEMO: "yes" }));
    try {
      await Promise.all(peers.map((peer) => peer.ready));
      for (const peer of peers) {
        const { processes } = await peer.run<{ processes: unknown[] }>("openHome", {});
        expect(processes).toHaveLength(6);
      }
    } finally {
      await Promise.all(peers.map((peer) => peer.kill()));
      await server.stop();
    }
  }, 180_000);
});
