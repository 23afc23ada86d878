"use client";
import { chakra } from "@chakra-ui/react";
import { useEffect, useId, useState } from "react";
import { type ConditionReading, readCondition } from "@/core/feel";
import { dataInReach, type Element, type Expression, type Model } from "@/core/model";
import { TextField } from "../../controls/fields";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

/** When a flow is taken: FEEL, which a machine can decide by, or plain words. The data in reach is offered. */
export function ConditionField({ flow, model }: { readonly flow: Element; readonly model: Model }) {
  const { dispatch } = useVersionStore().getState();
  const list = useId();
  const reach = dataInReach(model, flow.id);
  const held = flow.conditionExpression as Expression | undefined;
  const [typed, setTyped] = useState(held?.text ?? "");
  useEffect(() => setTyped(held?.text ?? ""), [held]);
  return (
    <>
      <TextField
        label={text.tray.condition}
        placeholder={text.tray.conditionHint}
        value={held?.text ?? ""}
        list={list}
        onType={setTyped}
        onCommit={(condition) =>
          dispatch({
            type: "setCondition",
            flow: flow.id,
            text: condition,
            isExecutable: readCondition(condition, reach).kind === "executable",
          })
        }
      />
      <datalist id={list}>
        {reach.map((name) => (
          <option key={name} value={continued(typed, name)} />
        ))}
      </datalist>
      <chakra.span role="status" fontSize="12px" color="quiet">
        {typed.trim() === "" ? "" : statusOf(readCondition(typed, reach), typed)}
      </chakra.span>
    </>
  );
}

/** What is typed with its last, unfinished name made whole. */
function continued(typed: string, name: string): string {
  const words = typed.split(/(?<=[\s(<>=+*/,-])/);
  for (let at = 0; at < words.length; at++) {
    const rest = words.slice(at).join("");
    if (rest !== "" && name.toLowerCase().startsWith(rest.toLowerCase())) return words.slice(0, at).join("") + name;
  }
  return typed === "" || /[\s(<>=+*/,-]$/.test(typed) ? typed + name : name;
}

function statusOf(reading: ConditionReading, typed: string): string {
  if (reading.kind === "executable")
    return reading.unknown.length === 0 ? text.tray.feel : text.tray.feelUnknown(reading.unknown.join(", "));
  if (reading.unknown) return text.tray.wordsUnknown(reading.unknown.join(", "));
  return reading.at === undefined
    ? text.tray.words
    : text.tray.wordsAt(typed.slice(Math.max(0, reading.at - 12), reading.at));
}
