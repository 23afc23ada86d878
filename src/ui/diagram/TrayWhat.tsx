"use client";
import { Button } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { useEffect, useState } from "react";
import {
  childrenOf,
  type Element,
  type EventDefinitionType,
  type Expression,
  eventDefinitionsOf,
  familyOf,
  isActivity,
  isEvent,
  isSubProcess,
  nameOf,
  positionOf,
  triggerOf,
  triggersAllowedAt,
  wordFor,
  wordsOf,
} from "@/core/model";
import { ask } from "../api";
import { Choice, TextField } from "../controls/fields";
import { text } from "../messages";
import { useVersionStore } from "../version/VersionContext";
import { newId } from "./actions";
import { Row, type TrayProps } from "./trayParts";

// With it comes the language package, which only these words need.
// Its own "loading" keeps the stage around it, and the focus in it, as they are.
const InTheBrief = dynamic(() => import("../brief/InTheBrief").then((file) => file.InTheBrief), {
  loading: () => null,
});

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

export function TrayWhat({ element, model, onOpenPage, onVersion }: TrayProps & { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  const family = familyOf(element.type);
  const trigger = isEvent(element.type) ? triggerOf(model, element) : "none";
  return (
    <>
      <Row label={text.tray.name}>
        <TextField
          label={text.tray.name}
          value={nameOf(model, element.id)}
          onCommit={(name) => dispatch({ type: "rename", id: element.id, name })}
        />
      </Row>
      <Row label={text.tray.type}>
        {family.length > 1 ? (
          <Choice
            label={text.tray.type}
            value={element.type}
            options={family.map((type) => [type, capital(wordFor(type))])}
            onChoose={(to) => dispatch({ type: "retype", id: element.id, to })}
          />
        ) : (
          capital(wordFor(element.type))
        )}
      </Row>
      {isEvent(element.type) && trigger !== "multiple" && trigger !== "parallelMultiple" && (
        <Row label={text.tray.trigger}>
          <Choice
            label={text.tray.trigger}
            value={trigger}
            options={triggersAllowedAt(positionOf(model, element))
              .filter((option) => option !== "multiple" && option !== "parallelMultiple")
              .map((option) => [
                option,
                option === "none" ? capital(text.tray.none) : capital(wordFor(option).replace(" event definition", "")),
              ])}
            onChoose={(next) =>
              dispatch({
                type: "retype",
                id: element.id,
                to: element.type,
                trigger: next as EventDefinitionType | "none",
              })
            }
          />
        </Row>
      )}
      {element.type === "boundaryEvent" && (
        <Row label={text.tray.interrupting}>
          <Choice
            label={text.tray.interrupting}
            value={element.cancelActivity === false ? "no" : "yes"}
            options={[
              ["yes", text.tray.yes],
              ["no", text.tray.no],
            ]}
            onChoose={(value) =>
              dispatch({
                type: "setField",
                id: element.id,
                field: "cancelActivity",
                value: value === "no" ? false : null,
              })
            }
          />
        </Row>
      )}
      {trigger === "timerEventDefinition" && <Timer element={element} model={model} />}
      {isActivity(element.type) && <Repetition element={element} model={model} />}
      {isSubProcess(element.type) && (
        <Button size="xs" variant="outline" onClick={() => onOpenPage(element.id)}>
          {text.diagram.openPage}
        </Button>
      )}
      {wordsOf(element).length > 0 && (
        <Row label={text.brief.inBrief}>
          <InTheBrief element={element} />
        </Row>
      )}
      {element.type === "callActivity" && <CalledProcess element={element} onVersion={onVersion} />}
    </>
  );
}

function Repetition({ element, model }: { readonly element: Element; readonly model: TrayProps["model"] }) {
  const { dispatch } = useVersionStore().getState();
  const loop = childrenOf(model, element.id, "loopCharacteristics")[0];
  const value = !loop
    ? "once"
    : loop.type === "standardLoopCharacteristics"
      ? "loop"
      : loop.isSequential === true
        ? "sequential"
        : "parallel";
  return (
    <Row label={text.tray.repeats}>
      <Choice
        label={text.tray.repeats}
        value={value}
        options={[
          ["once", text.tray.once],
          ["loop", text.tray.loop],
          ["sequential", text.tray.inTurn],
          ["parallel", text.tray.atOnce],
        ]}
        onChoose={(repetition) =>
          dispatch({ type: "setRepetition", activity: element.id, id: newId("repeat"), repetition })
        }
      />
    </Row>
  );
}

function Timer({ element, model }: { readonly element: Element; readonly model: TrayProps["model"] }) {
  const { dispatch } = useVersionStore().getState();
  const definition = eventDefinitionsOf(model, element.id).find(
    (candidate) => candidate.type === "timerEventDefinition",
  );
  const fields = ["timeDuration", "timeDate", "timeCycle"] as const;
  const held = fields.find((field) => definition?.[field] !== undefined) ?? "timeDuration";
  const [kind, setKind] = useState<(typeof fields)[number]>(held);
  const value = (definition?.[held] as Expression | undefined)?.text ?? "";
  return (
    <Row label={text.tray.when}>
      <Choice
        label={text.tray.when}
        value={kind}
        options={[
          ["timeDuration", text.tray.duration],
          ["timeDate", text.tray.date],
          ["timeCycle", text.tray.cycle],
        ]}
        onChoose={(next) => {
          setKind(next);
          if (value) dispatch({ type: "setTimer", event: element.id, kind: next, text: value });
        }}
      />
      <TextField
        label={text.tray.iso}
        placeholder={text.tray.iso}
        value={value}
        onCommit={(typed) => dispatch({ type: "setTimer", event: element.id, kind, text: typed })}
      />
    </Row>
  );
}

interface Callable {
  readonly bpmnId: string;
  readonly name: string;
  readonly version: string;
}

function CalledProcess({
  element,
  onVersion,
}: {
  readonly element: Element;
  readonly onVersion: (version: string) => void;
}) {
  const { dispatch } = useVersionStore().getState();
  const [callable, setCallable] = useState<readonly Callable[]>([]);
  useEffect(() => {
    ask<{ callable: Callable[] }>("listCallable")
      .then((answer) => setCallable(answer.callable))
      .catch(() => setCallable([]));
  }, []);
  const called = (element.calledElement as string | undefined) ?? "";
  const known = callable.find((process) => process.bpmnId === called);
  const options = [
    ["", text.tray.none] as const,
    ...callable.map((process) => [process.bpmnId, process.name] as const),
    ...(called && !known ? [[called, called] as const] : []),
  ];
  return (
    <Row label={text.tray.called}>
      <Choice
        label={text.tray.called}
        value={called}
        options={options}
        onChoose={(value) =>
          dispatch({ type: "setField", id: element.id, field: "calledElement", value: value === "" ? null : value })
        }
      />
      {known && (
        <Button size="xs" variant="outline" onClick={() => onVersion(known.version)}>
          {text.diagram.openPage}
        </Button>
      )}
    </Row>
  );
}
