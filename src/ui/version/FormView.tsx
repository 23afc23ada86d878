"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { useId, useState } from "react";
import {
  type DataField,
  type FormData,
  fieldWords,
  formProblems,
  isShown,
  readField,
  type ShownItem,
  valueIn,
  withValueIn,
} from "@/core/data";
import { text, worded } from "../messages";

const words = text.forms;

/** A form as the person who works sees it: labels, help, what is only shown; each field says at once what is wrong with it. */
export function FormView({
  items,
  data,
  onChange,
  showsAll = false,
}: {
  readonly items: readonly ShownItem[];
  readonly data: FormData;
  readonly onChange: (data: FormData) => void;
  /** Whether all that is wrong is said, also of fields nobody has been in. */
  readonly showsAll?: boolean;
}) {
  const problems = formProblems(items, data);
  const shown = items.flatMap((item, at) => (item.field && isShown(item.item, data) ? [{ ...item, at }] : []));
  return (
    <Flex direction="column" gap={3}>
      {shown.map((one, place) => {
        const { group } = one.item;
        const isNew = group && shown[place - 1]?.item.group !== group;
        const problem = problems.get(one.at);
        return (
          <div key={one.item.path.join("\n")}>
            {isNew && (
              <chakra.h3 fontSize="13px" fontWeight="700" mb={1} borderBottomWidth="1px" borderColor="line">
                {group}
              </chakra.h3>
            )}
            <FieldView
              shown={one}
              value={valueIn(data, one.item.path)}
              problem={problem && worded(problem)}
              showsProblem={showsAll}
              onValue={(value) => onChange(withValueIn(data, one.item.path, value))}
            />
          </div>
        );
      })}
    </Flex>
  );
}

interface FieldViewProps {
  readonly shown: ShownItem;
  readonly value: unknown;
  readonly problem: string | undefined;
  readonly showsProblem: boolean;
  readonly onValue: (value: unknown) => void;
}

function FieldView({ shown: { item, field, label }, value, problem, showsProblem, onValue }: FieldViewProps) {
  const id = useId();
  const [typed, setTyped] = useState<string>();
  const [wasIn, setWasIn] = useState(false);
  const one = field as DataField;
  const shownWords = typed ?? fieldWords(one, value);
  const type = (next: string) => {
    setTyped(next);
    const read = readField(one, next);
    // What cannot be read yet stands as it was typed, and is told.
    onValue("value" in read ? read.value : next.trim() === "" ? undefined : next);
  };
  const isToldOf = problem !== undefined && (wasIn || showsProblem);
  const described = [item.help ? `${id}-help` : "", isToldOf ? `${id}-problem` : ""].filter(Boolean).join(" ");
  const shared = {
    id,
    "aria-describedby": described || undefined,
    "aria-invalid": isToldOf || undefined,
    "aria-required": one.isRequired || undefined,
    bg: item.isReadOnly ? "sheet" : "paper",
    borderWidth: "1px",
    borderColor: isToldOf ? "trouble" : "line",
    borderRadius: "6px",
    w: "100%",
    minH: "32px",
    px: 2,
    fontSize: "14px",
    onBlur: () => {
      setTyped(undefined);
      setWasIn(true);
    },
  } as const;
  const unit = one.kind === "amount" ? one.currency : "";
  const choices =
    one.kind === "choice" && !one.isList
      ? (one.choices ?? [])
      : one.kind === "yesNo" && !one.isList
        ? [words.yes, words.no]
        : undefined;
  return (
    <Flex direction="column" gap={0.5}>
      <chakra.label htmlFor={id} fontSize="13px" fontWeight="600">
        {label}
        {unit && <chakra.span color="quiet"> ({unit})</chakra.span>}
        {one.isRequired && !item.isReadOnly && <chakra.span color="quiet"> · {words.required}</chakra.span>}
      </chakra.label>
      {item.isReadOnly ? (
        <chakra.output {...shared} display="block" py="5px">
          {shownWords || "–"}
        </chakra.output>
      ) : choices ? (
        <chakra.select {...shared} value={shownWords} onChange={(event) => type(event.target.value)}>
          <option value="">{words.choose}</option>
          {choices.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </chakra.select>
      ) : (
        <chakra.input
          {...shared}
          type={
            one.isList ? "text" : one.kind === "date" ? "date" : one.kind === "dateTime" ? "datetime-local" : "text"
          }
          inputMode={one.kind === "number" || one.kind === "amount" ? "decimal" : undefined}
          value={shownWords}
          onChange={(event) => type(event.target.value)}
        />
      )}
      {item.help && (
        <chakra.span id={`${id}-help`} fontSize="12px" color="quiet">
          {item.help}
        </chakra.span>
      )}
      {one.isList && (
        <chakra.span fontSize="12px" color="quiet">
          {words.several}
        </chakra.span>
      )}
      {isToldOf && (
        <chakra.span id={`${id}-problem`} fontSize="12px" color="trouble" role="alert">
          ! {problem}
        </chakra.span>
      )}
    </Flex>
  );
}
