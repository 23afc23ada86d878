import type { Broken } from "./targets";

/** Where alerts are sent: an address on this machine that the operator names in `LANE_ALERTS`; nothing else is ever reached. */
export function alertAddress(env: NodeJS.ProcessEnv = process.env): URL | undefined {
  if (!env.LANE_ALERTS) return undefined;
  try {
    const url = new URL(env.LANE_ALERTS);
    const isHere = ["localhost", "127.0.0.1", "[::1]"].includes(url.hostname) && url.protocol === "http:";
    return isHere ? url : undefined;
  } catch {
    return undefined;
  }
}

const mostMilliseconds = 3_000;

/** Tells that targets broke. One that cannot be told stays an alert in the application. */
export async function sendAlerts(broken: readonly Broken[], address = alertAddress()): Promise<boolean> {
  if (!address || broken.length === 0) return false;
  try {
    const answer = await fetch(address, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify({ broken }),
      redirect: "error",
      signal: AbortSignal.timeout(mostMilliseconds),
    });
    return answer.ok;
  } catch {
    return false;
  }
}
