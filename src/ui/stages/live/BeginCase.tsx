"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { nanoid } from "nanoid";
import { useMemo, useState } from "react";
import { live } from "@/contract";
import { type FormData, formProblems, shownItems } from "@/core/data";
import { flowNodesIn, formOf, type Id, type Model, nameOf } from "@/core/model";
import { DialogFrame } from "../../controls/DialogFrame";
import { Choice } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { ask } from "../../kernel/ask";
import { lookAgain } from "../../kernel/queries";
import { text } from "../../messages";
import { FormView } from "../../version/FormView";

const words = text.live;

/** Begins a case by the form of its start, where there is one. */
export function BeginCase(props: {
  readonly at: { readonly version: string; readonly run: string };
  readonly model: Model;
  readonly process: Id;
  readonly onBegun: (number: number) => void;
  readonly onClose: () => void;
}) {
  const { at, model, process, onBegun, onClose } = props;
  const starts = useMemo(
    () => flowNodesIn(model, process).filter(({ type }) => type === "startEvent"),
    [model, process],
  );
  const [chosen, setChosen] = useState<Id>();
  const start = starts.find(({ id }) => id === chosen) ?? starts[0];
  const form = start && formOf(start);
  const items = useMemo(() => (start && form ? shownItems(model, start.id, form) : []), [model, start, form]);
  const [data, setData] = useState<FormData>({});
  const [isTried, setTried] = useState(false);
  const [act] = useState(() => nanoid());
  const begin = async () => {
    setTried(true);
    if (formProblems(items, data).size > 0) return;
    try {
      const { number } = await ask(live.beginLiveCase, { ...at, act, values: { ...data }, start: start?.id });
      await lookAgain([{ kind: "version", id: at.version }]);
      onBegun(number);
      onClose();
    } catch (error) {
      complain(error);
    }
  };
  return (
    <DialogFrame
      title={words.beginTitle}
      width="520px"
      onClose={onClose}
      footer={
        <>
          <Button variant="outline" onClick={onClose}>
            {text.dialog.cancel}
          </Button>
          <Button bg="accent" color="onAccent" onClick={() => void begin()}>
            {words.begin}
          </Button>
        </>
      }
    >
      {starts.length > 1 && start && (
        <Flex gap={2} align="center" mb={3}>
          {words.startAt}
          <Choice
            label={words.startAt}
            value={start.id}
            options={starts.map(({ id }) => [id, nameOf(model, id) || id] as const)}
            onChoose={setChosen}
          />
        </Flex>
      )}
      {items.length > 0 ? (
        <FormView items={items} data={data} onChange={setData} showsAll={isTried} />
      ) : (
        <chakra.p>{words.noForm}</chakra.p>
      )}
    </DialogFrame>
  );
}
