import type { MemberRow } from "@/contract/members";

type Mentionable = Pick<MemberRow, "id" | "name">;

/** The beginning of a name that is being typed behind an "@" before the caret; undefined where none is. */
export function nameBegun(text: string, caret: number): string | undefined {
  return /(?:^|\s)@([\p{L}\p{M}'.-]*(?: [\p{L}\p{M}'.-]*)?)$/u.exec(text.slice(0, caret))?.[1];
}

/** Members whose name begins with what was typed, or one of whose names does. */
export const fitting = <One extends Mentionable>(members: readonly One[], begun: string): readonly One[] => {
  const wanted = begun.toLowerCase();
  return members.filter(({ name }) => {
    const low = name.toLowerCase();
    return low.startsWith(wanted) || low.split(" ").some((part) => part.startsWith(wanted));
  });
};

/** The text with a member's name put where its beginning stands, and where the caret is then. */
export function withMention(text: string, caret: number, begun: string, name: string): readonly [string, number] {
  const from = caret - begun.length;
  const next = `${text.slice(0, from)}${name} `;
  return [next + text.slice(caret).replace(/^ /, ""), next.length];
}

/** Who is mentioned: every member whose whole name stands behind an "@"; of two that begin alike, the longer name is meant. */
export function mentionedIn(text: string, members: readonly Mentionable[]): string[] {
  const byLength = [...members].sort((one, other) => other.name.length - one.name.length);
  const found: string[] = [];
  let rest = text;
  for (const { id, name } of byLength) {
    const pattern = new RegExp(`@${name.replace(/[.*+?^${"$"}{}()|[\]\\]/g, "\\$&")}(?![\\p{L}\\p{N}])`, "gu");
    if (!pattern.test(rest)) continue;
    found.push(id);
    rest = rest.replace(pattern, "");
  }
  return found;
}
