"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { useEffect, useMemo, useState } from "react";
import { exampleData, type FormData, formFromData, formProblems, shownItems } from "@/core/data";
import {
  canHoldForm,
  dataOfProcess,
  type Element,
  type Form,
  formOf,
  type Model,
  nameOf,
  processOf,
} from "@/core/model";
import { complain, tell } from "../../../controls/notices";
import { text, typeWord } from "../../../messages";
import { FormView } from "../../../version/FormView";
import { useVersion, useVersionStore } from "../../../version/VersionContext";
import { Parts } from "../Parts";
import { FormItems } from "./FormItems";

const words = text.forms;

/** The forms of a process: which step has one, how it is arranged, and how it will look. */
export function FormsPart() {
  const model = useVersion((state) => state.model);
  const { dispatch } = useVersionStore().getState();
  const steps = [...model.elements].filter(
    (one) => canHoldForm(one) && (one.type === "userTask" || formOf(one) !== undefined || isBegunByHand(model, one)),
  );
  const [wanted, setWanted] = useState<string>();
  const step = steps.find(({ id }) => id === wanted) ?? steps.find((one) => formOf(one)) ?? steps[0];
  const form = step && formOf(step);
  const put = (next: Form | null) => step && dispatch({ type: "setForm", id: step.id, form: next });
  const make = () => {
    if (!step) return;
    if (dataOfProcess(model, processOf(model, step.id)?.id ?? "").length === 0)
      return complain(new Error(words.noData));
    put(formFromData(model, step.id));
  };
  return (
    <Flex direction="column" flex="1" minH={0} px={6} py={3} gap={3}>
      <Flex gap={3} align="center" wrap="wrap">
        <chakra.h1 fontSize="16px" fontWeight="700">
          {words.title}
        </chakra.h1>
        <chakra.span color="quiet">{words.explain}</chakra.span>
        <chakra.span flex="1" />
        <Parts part="forms" />
      </Flex>
      {!step ? (
        <chakra.p color="quiet">{words.empty}</chakra.p>
      ) : (
        <Flex flex="1" minH={0} gap={4}>
          <chakra.ul aria-label={words.steps} listStyleType="none" w="220px" flexShrink={0} overflow="auto">
            {steps.map((one) => {
              const count = formOf(one)?.items.length;
              return (
                <li key={one.id}>
                  <chakra.button
                    type="button"
                    aria-pressed={one.id === step.id}
                    w="100%"
                    textAlign="left"
                    px={2}
                    py={1.5}
                    borderRadius="6px"
                    cursor="pointer"
                    bg={one.id === step.id ? "accentSoft" : undefined}
                    onClick={() => setWanted(one.id)}
                  >
                    <chakra.span display="block" fontWeight={one.id === step.id ? 700 : 400}>
                      {nameOf(model, one.id) || typeWord(one.type)}
                    </chakra.span>
                    <chakra.span fontSize="12px" color="quiet">
                      {count === undefined ? words.none : words.hasForm(count)}
                    </chakra.span>
                  </chakra.button>
                </li>
              );
            })}
          </chakra.ul>
          <chakra.section aria-label={words.arrange} flex="1.2" minW={0} overflow="auto">
            <Flex gap={2} mb={2}>
              <Button
                size="xs"
                {...(form ? { variant: "outline" as const } : { bg: "accent", color: "onAccent" })}
                onClick={make}
              >
                {form ? words.again : words.make}
              </Button>
              {form && (
                <Button size="xs" variant="outline" onClick={() => put(null)}>
                  {words.remove}
                </Button>
              )}
              <chakra.span fontSize="12px" color="quiet" alignSelf="center">
                {form ? words.keys : ""}
              </chakra.span>
            </Flex>
            {form && <FormItems key={step.id} model={model} step={step} form={form} onForm={put} />}
          </chakra.section>
          {form && <Preview key={`preview ${step.id}`} model={model} step={step} form={form} />}
        </Flex>
      )}
    </Flex>
  );
}

/** Whether a person begins a case at a start event: it waits for nothing. */
const isBegunByHand = (model: Model, event: Element) =>
  event.type === "startEvent" && model.elements.get(event.parent ?? "")?.type === "process";

function Preview({ model, step, form }: { readonly model: Model; readonly step: Element; readonly form: Form }) {
  const items = useMemo(() => shownItems(model, step.id, form), [model, step.id, form]);
  const [data, setData] = useState<FormData>(() => exampleData(items));
  const [isTried, setTried] = useState(false);
  // Fields that come later have example values, too.
  useEffect(() => setData((before) => ({ ...exampleData(items), ...before })), [items]);
  const open = formProblems(items, data).size;
  return (
    <chakra.section
      aria-label={words.preview}
      flex="1"
      minW={0}
      overflow="auto"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
      p={4}
    >
      <chakra.h2 fontSize="15px" fontWeight="700">
        {nameOf(model, step.id)}
      </chakra.h2>
      <chakra.p fontSize="12px" color="quiet" mb={3}>
        {words.preview}. {words.previewHint}
      </chakra.p>
      <FormView items={items} data={data} onChange={setData} showsAll={isTried} />
      <Button
        mt={4}
        bg="accent"
        color="onAccent"
        onClick={() => {
          setTried(true);
          tell({ description: open === 0 ? words.completed : words.open(open) });
        }}
      >
        {words.complete}
      </Button>
    </chakra.section>
  );
}
