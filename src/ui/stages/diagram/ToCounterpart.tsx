"use client";
import { chakra, Text } from "@chakra-ui/react";
import { Command as Palette } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { compare } from "@/contract";
import type { CounterpartRow } from "@/contract/compare";
import { type Element, nameOf } from "@/core/model";
import { complain } from "../../controls/notices";
import { closeThen, PaletteDialog } from "../../controls/PaletteDialog";
import { ask } from "../../kernel/ask";
import { text, typeWord } from "../../messages";
import { placeOf } from "../../version/counterparts";
import { useVersionStore } from "../../version/VersionContext";

/** Goes to the same element in another version: at once where there is one, and to the one that is chosen where there are several. */
export function ToCounterpart({ selected, onClose }: { readonly selected: Element; readonly onClose: () => void }) {
  const store = useVersionStore();
  const router = useRouter();
  const [found, setFound] = useState<readonly CounterpartRow[] | null>(null);
  const [typed, setTyped] = useState("");
  const name = nameOf(store.getState().model, selected.id) || typeWord(selected.type);
  useEffect(() => {
    const { info, say, settled } = store.getState();
    let isStale = false;
    settled()
      .then(() => ask(compare.listCounterparts, { version: info.version.id, element: selected.id }))
      .then(({ counterparts }) => {
        if (isStale) return;
        const [only, another] = counterparts;
        if (only && another) return setFound(counterparts);
        if (only) router.push(placeOf(only));
        else say("remark", text.counterpart.none(name));
        onClose();
      })
      .catch((error) => {
        complain(error);
        onClose();
      });
    return () => {
      isStale = true;
    };
  }, [store, router, selected.id, name, onClose]);
  if (!found) return null;
  const wanted = typed.trim().toLowerCase();
  return (
    <PaletteDialog
      title={text.counterpart.of(name)}
      isTitled
      placeholder={text.diagram.filter}
      typed={typed}
      onType={setTyped}
      empty={text.counterpart.noneFits}
      width="480px"
      onClose={onClose}
    >
      {found
        .filter((one) => `${one.name} ${one.versionName}`.toLowerCase().includes(wanted))
        .map((one) => (
          <Palette.Item
            key={`${one.version} ${one.element}`}
            value={`${one.version} ${one.element}`}
            onSelect={() => closeThen(onClose, () => router.push(placeOf(one)))}
          >
            <Text flex="1" fontWeight="600">
              {one.name || one.type}
            </Text>
            <chakra.span color="quiet" fontSize="12px">
              {one.versionName}
            </chakra.span>
          </Palette.Item>
        ))}
    </PaletteDialog>
  );
}
