import { partsOf } from "../messages";
import { writeTable } from "../table";
import type { FieldChange } from "./changes";
import type { ChangeGroup } from "./groups";
import { noReason, type Reason } from "./reasons";

export interface Report {
  readonly from: string;
  readonly to: string;
  readonly groups: readonly ChangeGroup[];
  readonly reasonOf: (group: ChangeGroup) => Reason | undefined;
}

const columns = ["Change", "What", "Answers", "Note", "Expected effect", "State", "Field", "Before", "After"] as const;

/** The change list as a table (RFC 4180), a row for each change, and one more for each field of it. */
export function changesAsCsv({ groups, reasonOf }: Report): string {
  return writeTable([
    [...columns],
    ...groups.flatMap((group) => {
      const { pains, note, effect, state } = reasonOf(group) ?? noReason;
      return [
        [group.kind, group.words, pains.join(", "), note, effect, state, "", "", ""],
        ...fieldsOf(group).map(({ field, from, to }) => ["", "", "", "", "", "", field, from, to]),
      ];
    }),
  ]);
}

/** The change list as a document. */
export function changesAsMarkdown({ from, to, groups, reasonOf }: Report): string {
  const lines = [`# ${plain(from)} against ${plain(to)}`, ""];
  for (const group of groups) {
    const words = partsOf(group.said)
      .map((part) => (typeof part === "string" ? plain(part) : `**${plain(part.name)}**`))
      .join("");
    lines.push(`- ${words}`);
    const reason = reasonOf(group);
    if (reason) {
      const told = [
        reason.pains.length > 0 && `answers ${reason.pains.join(", ")}`,
        reason.effect && `expected: ${plain(reason.effect)}`,
        reason.note && plain(reason.note),
        reason.state,
      ].filter(Boolean);
      lines.push(`  - ${told.join("; ")}`);
    }
  }
  if (groups.length === 0) lines.push("Nothing differs.");
  return `${lines.join("\n")}\n`;
}

const fieldsOf = (group: ChangeGroup): FieldChange[] => group.changes.flatMap((change) => [...change.fields]);

/** Words that Markdown would read as something else. */
const plain = (words: string): string => words.replace(/\s+/g, " ").replace(/([\\`*_[\]<>#|])/g, "\\$1");
