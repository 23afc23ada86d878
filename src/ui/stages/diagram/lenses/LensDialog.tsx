"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useMemo, useState } from "react";
import { lenses } from "@/contract";
import type { LensRow } from "@/contract/lenses";
import type { Lens } from "@/core/lens";
import { DialogFrame } from "../../../controls/DialogFrame";
import { Keycap } from "../../../controls/Keycap";
import { complain } from "../../../controls/notices";
import { ask } from "../../../kernel/ask";
import { doAct } from "../../../kernel/history";
import { lookAgain } from "../../../kernel/queries";
import { text } from "../../../messages";
import { sentenceOf } from "../../../version/lenses/sentence";
import { useLensesOn } from "../../../version/lenses/store";
import { useKeptLenses, useMarked } from "../../../version/lenses/useLenses";
import { LensForm } from "./LensForm";
import { LensSample } from "./LensSample";

const words = text.lenses;
const again = () => lookAgain([{ kind: "workspace" }]);

/** All lenses: which are shown, and how they are made. */
export function LensDialog({ onClose }: { readonly onClose: () => void }) {
  const rows = useKeptLenses();
  const on = useLensesOn((state) => state.on);
  const { toggle } = useLensesOn.getState();
  const [editing, setEditing] = useState<LensRow | "new">();
  const marked = useMarked(useMemo(() => rows.map(({ lens }) => lens), [rows]));
  const keep = async (lens: Lens) => {
    if (editing === undefined) return;
    const before = editing === "new" ? undefined : editing;
    const id = before?.id ?? nanoid(12);
    let revision = before?.revision ?? 0;
    const save = async (content: Lens) => {
      ({ revision } = await ask(lenses.saveLens, { id, lens: content, revision }));
    };
    await doAct(
      words.kept(lens.name),
      () => save(lens),
      () => (before ? save(before.lens) : ask(lenses.deleteLens, { id })),
    );
    await again();
    if (!before && !on.includes(id)) toggle(id);
    setEditing(undefined);
  };
  const remove = ({ id, lens }: LensRow) =>
    void doAct(
      words.removed(lens.name),
      () => ask(lenses.deleteLens, { id }),
      () => ask(lenses.restoreLens, { id }),
    ).then(again, complain);
  // Both stand in one window: one that goes while another comes would take the keyboard, and the other with it.
  if (editing)
    return (
      <DialogFrame
        title={editing === "new" ? words.new : words.editOf(editing.lens.name)}
        width="680px"
        onClose={onClose}
        footer={null}
      >
        <LensForm
          {...(editing !== "new" && { lens: editing.lens })}
          onKeep={keep}
          onBack={() => setEditing(undefined)}
        />
      </DialogFrame>
    );
  return (
    <DialogFrame
      title={words.title}
      width="680px"
      onClose={onClose}
      footer={
        <>
          <Button bg="accent" color="onAccent" onClick={() => setEditing("new")}>
            {words.new}
          </Button>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.close}
          </Button>
        </>
      }
    >
      <chakra.p color="quiet" mb={3}>
        {words.explain}
      </chakra.p>
      {rows.length === 0 && <p>{words.empty}</p>}
      <chakra.ul listStyleType="none" data-testid="lenses">
        {rows.map((row, at) => (
          <Flex as="li" key={row.id} gap={3} align="center" py={1.5} borderTopWidth="1px" borderColor="line">
            <input
              type="checkbox"
              aria-label={words.show(row.lens.name)}
              checked={on.includes(row.id)}
              onChange={() => toggle(row.id)}
            />
            <LensSample lens={row.lens} />
            <chakra.span flex="1" minW={0}>
              <chakra.span fontWeight="600">{row.lens.name}</chakra.span>
              <chakra.span display="block" color="quiet" fontSize="12px">
                {sentenceOf(row.lens)} · {words.marks(marked[at]?.length ?? 0)}
              </chakra.span>
            </chakra.span>
            {at < 9 && <Keycap>{`Shift ${at + 1}`}</Keycap>}
            <Button
              size="xs"
              variant="outline"
              aria-label={words.editOf(row.lens.name)}
              onClick={() => setEditing(row)}
            >
              {words.edit}
            </Button>
            <Button size="xs" variant="outline" aria-label={words.removeOf(row.lens.name)} onClick={() => remove(row)}>
              {words.remove}
            </Button>
          </Flex>
        ))}
      </chakra.ul>
    </DialogFrame>
  );
}
