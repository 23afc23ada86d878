"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { text } from "../../messages";
import { useKeptLenses } from "./useLenses";

/** Which lenses are laid over what leaves: a handbook, what a link shows. Nothing where there are none. */
export function LensChoice(props: {
  readonly chosen: readonly string[];
  readonly onChoose: (chosen: readonly string[]) => void;
}) {
  const { chosen, onChoose } = props;
  const rows = useKeptLenses();
  if (rows.length === 0) return null;
  const toggle = (id: string) =>
    onChoose(chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id]);
  return (
    <chakra.fieldset mt={2}>
      <chakra.legend fontWeight="700">{text.lenses.title}</chakra.legend>
      <Flex direction="column" gap={1} maxH="120px" overflowY="auto">
        {rows.map(({ id, lens }) => (
          <chakra.label key={id} display="flex" gap={2} alignItems="center">
            <input type="checkbox" checked={chosen.includes(id)} onChange={() => toggle(id)} />
            {lens.name}
          </chakra.label>
        ))}
      </Flex>
    </chakra.fieldset>
  );
}
