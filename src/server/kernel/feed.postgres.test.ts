import { afterAll, beforeAll, describe, expect, test } from "vitest";
import type { Happened } from "@/contract/events";
import { localMember } from "@/server";
import { type Peer, startPeer } from "../testing/peers";
import { type PostgresServer, postgresMissing, startPostgres } from "../testing/postgres";
import { closeWorkspace, openWorkspace, run, temporaryFolder } from "../testing/workspace";
import { feedPosition, hearFeed, listenToFeed } from "./events";

describe.skipIf(postgresMissing !== undefined)("what another process did, on PostgreSQL", () => {
  let server: PostgresServer;
  let peer: Peer;
  beforeAll(async () => {
    server = await startPostgres();
    process.env.DATABASE_URL = server.url;
    await openWorkspace(temporaryFolder());
    peer = startPeer({ DATABASE_URL: server.url });
    await peer.ready;
  });
  afterAll(async () => {
    await peer?.kill();
    await closeWorkspace();
    delete process.env.DATABASE_URL;
    await server?.stop();
  });

  test("is heard here once it is stored, and what was refused is not", async () => {
    await listenToFeed();
    const heard: Happened[] = [];
    let told = () => {};
    const stop = hearFeed(localMember, null, (_, text) => {
      heard.push(JSON.parse(text) as Happened);
      told();
    });
    const next = () =>
      new Promise<void>((resolve) => {
        told = resolve;
      });
    let waiting = next();
    await peer.run("createArea", { id: "there", name: "Made there", parent: null });
    await waiting;
    expect(heard.at(-1)).toMatchObject({ by: "createArea" });
    await expect(peer.run("renameArea", { id: "nothing", name: "x" })).rejects.toThrow();
    waiting = next();
    await run("renameArea", { id: "there", name: "Named here" });
    await waiting;
    expect(heard.map(({ by }) => by)).toEqual(["createArea", "renameArea"]);
    stop();
    // What another process does counts here as well: a page that is made now does not hear of it.
    const late: string[] = [];
    hearFeed(localMember, feedPosition() as string, (_, text) => late.push(text))();
    expect(late).toEqual([]);
  });

  test("who is where is told by every process to all", async () => {
    await listenToFeed();
    const place = {
      version: "seen-by-all",
      stage: "diagram",
      page: null,
      selection: ["check"],
      view: null,
      isGone: false,
    };
    const heard = new Promise<string>((resolve) => {
      const stop = hearFeed(localMember, null, (_, text) => {
        const { here } = JSON.parse(text) as { here?: { window: string } };
        if (!here) return;
        stop();
        resolve(here.window);
      });
    });
    await peer.run("sayWhereIAm", { ...place, window: "there" });
    expect(await heard).toBe("there");
    const { others } = await run<{ others: readonly { window: string }[] }>("sayWhereIAm", {
      ...place,
      window: "here",
    });
    expect(others.map(({ window }) => window)).toEqual(["there"]);
  });
});
