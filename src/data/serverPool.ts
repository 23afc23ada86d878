import pg from "pg";

/**
 * The connections to a PostgreSQL server. One that breaks while it is lent out costs what was asked on it and nothing after it: its
 * error, unheard, would end this process, and whoever borrowed it may fail before it can give it back (a transaction whose first word
 * is not answered), which would leave a place empty until a restart.
 */
export class ServerPool extends pg.Pool {
  constructor(url: string) {
    // Waiting for a lock, or for a server that does not answer, ends; the cause is then told.
    super({ connectionString: url, lock_timeout: 60_000, connectionTimeoutMillis: 10_000 });
    // One that breaks while nobody uses it is replaced by the next question.
    this.on("error", () => {});
  }

  override connect(): Promise<pg.PoolClient>;
  override connect(
    lent: (
      error: Error | undefined,
      client: pg.PoolClient | undefined,
      done: (release?: Error | boolean) => void,
    ) => void,
  ): void;
  override connect(lent?: Parameters<pg.Pool["connect"]>[0]): Promise<pg.PoolClient> | undefined {
    // A single question of the pool itself borrows this way; it listens and gives back on its own.
    if (!lent) return super.connect().then(givenBackWhenBroken);
    super.connect(lent);
    return undefined;
  }
}

/** A lent connection that goes back by itself when it breaks; given back a second time, it stays where it is. */
function givenBackWhenBroken(client: pg.PoolClient): pg.PoolClient {
  const giveBack = client.release;
  let isLent = true;
  const release = (cause?: Error | boolean) => {
    if (!isLent) return;
    isLent = false;
    giveBack(cause);
    client.off("error", broken);
  };
  const broken = (error: Error) => release(error);
  client.on("error", broken);
  client.release = release;
  return client;
}
