import { database } from "@/data/database";
import { listenToAll } from "./events";

export { hearFeed } from "./events";

/** From the first window on, this process hears what all do. */
export const listenToFeed = async (): Promise<void> => listenToAll((await database()).listen);
