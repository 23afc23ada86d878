"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import type { MatchBy } from "@/core/compare";
import { LegendEntry } from "../../canvas/marks/Legend";
import { Choice } from "../../controls/fields";
import { Segments } from "../../controls/Segments";
import { text } from "../../messages";
import { useCompare } from "./compareStore";
import { pennedMark } from "./marks";
import { SidePicker } from "./SidePicker";
import type { SideRef } from "./sides";

export type Method = MatchBy | "auto";

interface CompareHeadProps {
  readonly refs: { readonly from: SideRef | undefined; readonly to: SideRef | undefined };
  readonly titles: { readonly from: string | undefined; readonly to: string | undefined };
  readonly onSide: (hand: "from" | "to", ref: SideRef) => void;
  readonly by: Method;
  readonly onMethod: (by: Method) => void;
}

/** What is compared with what, how they are matched, and how the two are shown. */
export function CompareHead({ refs, titles, onSide, by, onMethod }: CompareHeadProps) {
  const { view, shown, shownOf, set, show } = useCompare();
  return (
    <Flex px={5} h="46px" gap={2.5} align="center" bg="sheet" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
      <chakra.h1 srOnly>{text.stages.compare}</chakra.h1>
      <SidePicker
        label={text.compare.old}
        value={refs.from}
        title={titles.from}
        onChoose={(ref) => onSide("from", ref)}
      />
      <span>{text.compare.against}</span>
      <SidePicker label={text.compare.fresh} value={refs.to} title={titles.to} onChoose={(ref) => onSide("to", ref)} />
      <chakra.span color="quiet" flexShrink={0}>
        {text.compare.matched}
      </chakra.span>
      <Choice
        label={text.compare.matched}
        value={by}
        options={(["auto", "counterpart", "id", "name"] as const).map((method) => [method, text.compare.by[method]])}
        onChoose={onMethod}
      />
      <Box flex="1" />
      <Pens />
      <Segments
        label={text.compare.view}
        value={view}
        options={(["beside", "stacked", "one"] as const).map((one) => [one, text.compare.views[one]])}
        onChoose={(next) => set({ view: next })}
      />
      {view === "one" && (
        <Segments
          label={text.compare.showing}
          value={shownOf.size > 0 ? undefined : shown}
          options={(["from", "both", "to"] as const).map((one) => [one, text.compare.shown[one]])}
          onChoose={(next) => show(next)}
        />
      )}
    </Flex>
  );
}

/** The pens are named where one chooses the sides: without them nothing on the page can be read. */
function Pens() {
  return (
    <Flex
      as="ul"
      listStyleType="none"
      gap={1}
      color="quiet"
      align="center"
      flexShrink={0}
      css={{ "& li": { gap: "2px", fontSize: "12px" }, "& svg": { width: "32px", height: "18px" } }}
    >
      <LegendEntry mark={pennedMark("before", "from")} />
      <LegendEntry mark={pennedMark("after", "to")} />
    </Flex>
  );
}
