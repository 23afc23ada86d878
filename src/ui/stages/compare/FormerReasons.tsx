"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ReasonRow } from "@/contract/compare";
import type { ChangeGroup } from "@/core/compare";
import { momentWords } from "../../controls/moment";
import { complain } from "../../controls/notices";
import { text } from "../../messages";
import { useCompare } from "./compareStore";
import type { Compared, GiveReason } from "./useComparison";

interface LostReasonsProps {
  readonly compared: Compared;
  readonly reasons: ReadonlyMap<string, ReasonRow>;
  readonly give: GiveReason | undefined;
}

/** What was said of changes that are no difference any more: settled ones stay as they were settled, with their reason. */
export function FormerReasons({ compared, reasons, give }: LostReasonsProps) {
  const former = [...reasons.values()].filter((row) => !compared.groups.some((group) => group.key === row.change));
  const settled = former.filter((row) => row.reason.settled !== undefined);
  const lost = former.filter((row) => row.reason.settled === undefined);
  return (
    <>
      {settled.length > 0 && (
        <Box as="li" px={5} py={2} color="quiet" data-testid="settled-reasons">
          {text.compare.settledReasons}
          <ul style={{ listStylePosition: "inside" }}>
            {settled.map(({ change, words, reason, member, at }) => (
              <li key={change}>
                {words} <b>{reason.settled && text.compare.settled[reason.settled]}</b>{" "}
                {[reason.pains.map((pain) => text.compare.pains[pain]).join(", "), reason.effect, reason.note]
                  .filter(Boolean)
                  .join(": ")}{" "}
                ({member}, {momentWords(at)})
              </li>
            ))}
          </ul>
        </Box>
      )}
      {lost.length > 0 && <LostReasons compared={compared} lost={lost} reasons={reasons} give={give} />}
    </>
  );
}

/** Reasons whose change went otherwise, as when its step was made anew: given to the change one looks at, or deleted. */
function LostReasons({ compared, lost, reasons, give }: LostReasonsProps & { readonly lost: readonly ReasonRow[] }) {
  const chosen = useCompare((state) => state.chosen);
  const free = compared.groups.find((group) => group.key === chosen && !reasons.has(group.key));
  const remove = (row: ReasonRow) => give?.({ key: row.change, words: row.words }, null);
  const handOn = async (row: ReasonRow, group: ChangeGroup) => {
    await give?.(group, row.reason);
    await remove(row);
  };
  return (
    <Box as="li" px={5} py={2} color="quiet" data-testid="lost-reasons">
      {text.compare.lostReasons}
      <ul style={{ listStylePosition: "inside" }}>
        {lost.map((row) => (
          <li key={row.change}>
            {[row.words, row.reason.note, row.reason.effect].filter(Boolean).join(" ")}
            {give && (
              <Flex display="inline-flex" gap={3} ms={3}>
                {free && <Act onClick={() => handOn(row, free).catch(complain)}>{text.compare.handReasonOn}</Act>}
                <Act onClick={() => remove(row)?.catch(complain)}>{text.compare.deleteReason}</Act>
              </Flex>
            )}
          </li>
        ))}
      </ul>
    </Box>
  );
}

function Act({ onClick, children }: { readonly onClick: () => void; readonly children: React.ReactNode }) {
  return (
    <chakra.button type="button" color="accent" cursor="pointer" minH="24px" onClick={onClick}>
      {children}
    </chakra.button>
  );
}
