"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { inVersion } from "@/contract";
import type { Command } from "@/core/commands";
import { type ChangeGroup, familyOfCompared } from "@/core/compare";
import { counterpartsOf, type Id } from "@/core/model";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";
import type { Compared } from "./useComparison";

/** Says by hand what is the same thing on both sides, and what is not: where names and ids tell it wrongly. */
export function Linking({
  compared,
  group,
  onLinked,
}: {
  readonly compared: Compared;
  readonly group: ChangeGroup;
  readonly onLinked: () => void;
}) {
  const store = useVersionStore();
  const { head, model } = compared.to;
  const lead = group.changes[0];
  if (!head || !lead) return null;
  const link = async (id: Id, counterparts: Id[]) => {
    const command: Command = { type: "setCounterparts", id, counterparts };
    try {
      if (head.isOpen) store.getState().dispatch(command);
      else
        await ask(inVersion.applyCommands, {
          version: head.version,
          batch: nanoid(),
          base: head.sequence,
          commands: [command],
        });
      onLinked();
    } catch (error) {
      complain(error);
    }
  };
  const fresh = lead.kind === "new" ? lead.to : undefined;
  const gone = compared.groups
    .flatMap((one) => one.changes)
    .flatMap((change) => (change.kind === "gone" && change.from ? [change.from] : []))
    .filter((one) => one.name !== "" && fresh && familyOfCompared(one) === familyOfCompared(fresh));
  if (fresh && gone.length > 0)
    return (
      <Flex gap={2} mt={2} align="center" fontSize="13px" color="quiet">
        {text.compare.sameAs}
        <Choice
          label={text.compare.sameAs}
          value=""
          options={[["", text.compare.choose], ...gone.map((one) => [one.id, one.name] as const)]}
          onChoose={(id) => id && link(fresh.id, [id])}
        />
      </Flex>
    );
  const both = lead.from && lead.to && (lead.kind === "changed" || lead.kind === "moved") ? lead.to : undefined;
  if (!both) return null;
  const known = counterpartsOf(model.elements.get(both.id) ?? ({} as never));
  return (
    <Flex gap={2} mt={2} fontSize="13px">
      <chakra.button
        type="button"
        color="accent"
        cursor="pointer"
        title={text.compare.notSameWhy}
        onClick={() =>
          link(
            both.id,
            known.filter((id) => id !== lead.from?.id),
          )
        }
      >
        {text.compare.notSame}
      </chakra.button>
    </Flex>
  );
}
