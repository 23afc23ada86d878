"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useState } from "react";
import { attributesOf, type Element } from "@/core/model";
import { TextField } from "../controls/fields";
import { text } from "../messages";
import { useVersionStore } from "../version/VersionContext";

/** Facts of one's own about an element, by names of one's own. */
export function TrayAttributes({ element }: { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  const [name, setName] = useState("");
  const known = attributesOf(element);
  const set = (attribute: string, value: string | null) =>
    dispatch({ type: "setAttribute", id: element.id, name: attribute, value });
  return (
    <chakra.div mt={3}>
      <chakra.h3 fontSize="12px" fontWeight="600" color="quiet" mb={1}>
        {text.tray.attributes}
      </chakra.h3>
      {known.map((attribute) => (
        <Flex key={attribute.name} gap={1} mb={1} align="center">
          <chakra.span w="84px" truncate title={attribute.name}>
            {attribute.name}
          </chakra.span>
          <TextField label={attribute.name} value={attribute.value} onCommit={(value) => set(attribute.name, value)} />
          <chakra.button
            type="button"
            aria-label={text.tray.remove(attribute.name)}
            color="quiet"
            minW="24px"
            h="24px"
            cursor="pointer"
            onClick={() => set(attribute.name, null)}
          >
            <X size={12} />
          </chakra.button>
        </Flex>
      ))}
      <chakra.input
        aria-label={text.tray.newAttribute}
        placeholder={text.tray.newAttribute}
        value={name}
        w="100%"
        h="26px"
        px={2}
        fontSize="13px"
        bg="paper"
        borderWidth="1px"
        borderColor="line"
        borderRadius="6px"
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key !== "Enter" || name.trim() === "") return;
          if (set(name.trim(), "")) setName("");
        }}
      />
    </chakra.div>
  );
}
