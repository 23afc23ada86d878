import { and, eq, isNull, ne } from "drizzle-orm";
import { database } from "@/data/database";
import { digests, members, signInUsers } from "@/data/schema";
import { myThreads } from "../comments/threads";
import { seated } from "../kernel/rights";
import { type Member, runUseCase } from "../kernel/useCase";
import { remindWork } from "../live/work";
import { myReviews } from "../review/reviews";
import { type MailServer, mailServer, sendMail } from "./mail";
import { digestOf } from "./waiting";

/** From this hour of the day on (UTC), once a day. */
const firstHour = 5;

/** Whether this day's digest is this process's to send: of several, and however often it is looked, one sends it. */
async function isOurs(member: string, day: string): Promise<boolean> {
  const { db } = await database();
  const taken = await db
    .insert(digests)
    .values({ member, day })
    .onConflictDoUpdate({ target: digests.member, set: { day }, setWhere: ne(digests.day, day) })
    .returning({ member: digests.member });
  return taken.length > 0;
}

async function waitingFor(member: Member) {
  const [{ threads }, { reviews }, { overdue }] = [
    await runUseCase(member, myThreads, {}),
    await runUseCase(member, myReviews, {}),
    await runUseCase(member, remindWork, {}),
  ];
  return { threads, reviews, overdue };
}

/**
 * Sends each member who has an address what waits for them, once a day; who has nothing waiting gets nothing. One that could not be sent is
 * tried again at the next look.
 * @returns to how many one was sent
 */
export async function sendDigests(
  now: Date,
  origin: string,
  server: MailServer | undefined = mailServer(),
  send = sendMail,
): Promise<number> {
  if (!server || now.getUTCHours() < firstHour) return 0;
  const { db } = await database();
  const day = now.toISOString().slice(0, 10);
  const rows = await db
    .select({ member: members, email: signInUsers.email })
    .from(members)
    .innerJoin(signInUsers, eq(signInUsers.id, members.id))
    .where(isNull(members.removedAt));
  let sent = 0;
  for (const { member, email } of rows) {
    if (!(await isOurs(member.id, day))) continue;
    try {
      const mail = digestOf(await waitingFor(seated(member)), { name: member.name, email }, origin);
      if (!mail) continue;
      await send(server, mail);
      sent++;
    } catch (error) {
      await db.delete(digests).where(and(eq(digests.member, member.id), eq(digests.day, day)));
      console.error(`A digest could not be sent: ${(error as Error).message}`);
      // The others would meet the same mail server.
      return sent;
    }
  }
  return sent;
}

const milliseconds = 60_000;
const shared = globalThis as unknown as { laneDigests?: NodeJS.Timeout; laneReady?: Promise<unknown> };

/** From now on digests are sent by this server, where a mail server is configured, as soon as its workspace is open. */
export function beginDigests(): void {
  if (shared.laneDigests || !mailServer()) return;
  const origin = process.env.LANE_ORIGIN?.replace(/\/$/, "") || `http://localhost:${process.env.PORT ?? 4310}`;
  let isBusy = false;
  const look = async () => {
    if (isBusy || !shared.laneReady) return;
    isBusy = true;
    try {
      await shared.laneReady;
      await sendDigests(new Date(), origin);
    } catch (error) {
      console.error(`Digests could not be sent: ${(error as Error).message}`);
    }
    isBusy = false;
  };
  shared.laneDigests = setInterval(() => void look(), milliseconds);
  shared.laneDigests.unref();
}
