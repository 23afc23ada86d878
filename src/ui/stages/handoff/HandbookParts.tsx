"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { ArrowDown, ArrowUp } from "lucide-react";
import { IconTool } from "../../controls/IconTool";
import { text } from "../../messages";
import { type ChosenPart, partMoved } from "./handbookChoice";

const words = text.handbook;

/** The parts of a handbook: which, and in what order. */
export function HandbookParts(props: {
  readonly parts: readonly ChosenPart[];
  readonly onChange: (parts: readonly ChosenPart[]) => void;
}) {
  const { parts, onChange } = props;
  const turn = (part: ChosenPart["part"]) =>
    onChange(parts.map((one) => (one.part === part ? { part, isIn: !one.isIn } : one)));
  return (
    <chakra.ol listStyleType="none" aria-label={words.parts}>
      {parts.map(({ part, isIn }, at) => {
        const name = words.partNames[part];
        return (
          <Flex
            as="li"
            key={part}
            align="center"
            gap={2}
            h="28px"
            borderTopWidth={at > 0 ? "1px" : 0}
            borderColor="line"
          >
            <chakra.label flex="1" minW={0} display="flex" alignItems="center" gap={2} color={isIn ? "ink" : "quiet"}>
              <input type="checkbox" checked={isIn} aria-label={words.include(name)} onChange={() => turn(part)} />
              {name}
            </chakra.label>
            <IconTool
              name={words.up(name)}
              icon={ArrowUp}
              disabled={at === 0}
              onPress={() => onChange(partMoved(parts, part, -1))}
            />
            <IconTool
              name={words.down(name)}
              icon={ArrowDown}
              disabled={at === parts.length - 1}
              onPress={() => onChange(partMoved(parts, part, 1))}
            />
          </Flex>
        );
      })}
    </chakra.ol>
  );
}
