"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { useState } from "react";
import { attributesOf, type Element } from "@/core/model";
import { TextField } from "../../controls/fields";
import { NewLine } from "../../controls/trayParts";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

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
      <NewLine
        label={text.tray.newAttribute}
        value={name}
        onType={setName}
        onEnter={() => name.trim() !== "" && set(name.trim(), "") && setName("")}
      />
    </chakra.div>
  );
}
