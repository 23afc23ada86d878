import { home } from "@/contract";
import { ask } from "./ask";
import { did } from "./history";

type Remove = () => Promise<{ readonly at: string }>;

/** Notes that something was made: taking that back deletes it, and bringing it again takes the deletion back. */
export function didMake(label: string, remove: Remove): void {
  let at = "";
  did({
    label,
    undo: async () => {
      at = (await remove()).at;
    },
    redo: () => ask(home.undelete, { at }),
  });
}

/** Deletes something, noted: taking that back is taking the deletion back. */
export async function doDelete(label: string, remove: Remove): Promise<void> {
  let { at } = await remove();
  did({
    label,
    undo: () => ask(home.undelete, { at }),
    redo: async () => {
      at = (await remove()).at;
    },
  });
}
