"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { ReasonRow } from "@/contract/compare";
import type { ChangeGroup } from "@/core/compare";
import { complain } from "../../controls/notices";
import { text } from "../../messages";
import { useCompare } from "./compareStore";
import type { Compared, GiveReason } from "./useComparison";

interface LostReasonsProps {
  readonly compared: Compared;
  readonly reasons: ReadonlyMap<string, ReasonRow>;
  readonly give: GiveReason | undefined;
}

/** Reasons whose change is no longer there, as when its step was made anew: given to the change one looks at, or deleted. */
export function LostReasons({ compared, reasons, give }: LostReasonsProps) {
  const chosen = useCompare((state) => state.chosen);
  const lost = [...reasons.values()].filter((row) => !compared.groups.some((group) => group.key === row.change));
  if (lost.length === 0) return null;
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
