"use client";
import { Button, chakra } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { referenceOf, triggerWords } from "@/core/commands";
import { term } from "@/core/messages";
import {
  childrenOf,
  type Element,
  type Expression,
  eventDefinitionsOf,
  familyOf,
  flowNodesIn,
  isActivity,
  isDataNode,
  isEvent,
  isSubProcess,
  nameOf,
  positionOf,
  scopeOf,
  timerWords,
  triggerOf,
  triggersAllowedAt,
  wordsOf,
} from "@/core/model";
import { Choice, TextField } from "../../controls/fields";
import { Row, type TrayProps } from "../../controls/trayParts";
import { today } from "../../kernel/today";
import { text, typeWord, worded } from "../../messages";
import { newId } from "../../version/actions";
import { nameElement } from "../../version/laneRoles";
import { useVersionStore } from "../../version/VersionContext";
import { CalledFrom, CalledProcess } from "./TrayCalls";

// With it comes the language package, which only these words need.
// Its own "loading" keeps the stage around it, and the focus in it, as they are.
const InTheBrief = dynamic(() => import("../../version/InTheBrief").then((file) => file.InTheBrief), {
  loading: () => null,
});

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

export function TrayWhat({ element, model, onOpenPage, onVersion }: TrayProps & { readonly element: Element }) {
  const store = useVersionStore();
  const { dispatch } = store.getState();
  const family = familyOf(element.type);
  const trigger = isEvent(element.type) ? triggerOf(model, element) : "none";
  return (
    <>
      <Row label={text.tray.name}>
        <TextField
          label={text.tray.name}
          value={nameOf(model, element.id)}
          onCommit={(name) => nameElement(store, element.id, name)}
        />
      </Row>
      <Row label={text.tray.type}>
        {family.length > 1 ? (
          <Choice
            label={text.tray.type}
            value={element.type}
            options={family.map((type) => [type, capital(typeWord(type))])}
            onChoose={(to) => dispatch({ type: "retype", id: element.id, to })}
          />
        ) : (
          capital(typeWord(element.type))
        )}
      </Row>
      {isEvent(element.type) && (
        <Row label={text.tray.trigger}>
          <Choice
            label={text.tray.trigger}
            value={trigger}
            options={triggersAllowedAt(positionOf(model, element)).map((option) => [
              option,
              option === "none" ? capital(text.tray.none) : capital(worded(term(triggerWords(option)))),
            ])}
            onChoose={(next) =>
              dispatch({
                type: "retype",
                id: element.id,
                to: element.type,
                trigger: next,
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
      {trigger === "compensateEventDefinition" && element.type !== "boundaryEvent" && (
        <Compensated element={element} model={model} />
      )}
      <NamedReference element={element} model={model} />
      {isActivity(element.type) && (
        <>
          <Repetition element={element} model={model} />
          <RepetitionDetails element={element} model={model} />
        </>
      )}
      {isDataNode(element.type) && (
        <Row label={text.tray.state}>
          <TextField
            label={text.tray.state}
            placeholder={text.tray.stateHint}
            value={childrenOf(model, element.id, "dataState")[0]?.name ?? ""}
            onCommit={(state) => dispatch({ type: "setDataState", id: element.id, state })}
          />
        </Row>
      )}
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
      {element.type === "process" && <CalledFrom />}
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
  const held = (["timeDuration", "timeDate", "timeCycle"] as const).find((field) => definition?.[field] !== undefined);
  const iso = held ? ((definition?.[held] as Expression | undefined)?.text ?? "") : "";
  const words = held ? timerWords(held, iso) : "";
  return (
    <Row label={text.tray.when}>
      <TextField
        label={text.tray.when}
        placeholder={text.tray.whenHint}
        value={words}
        onCommit={(typed) => dispatch({ type: "sayTimer", event: element.id, text: typed, today: today() })}
      />
      {iso && iso !== words && (
        <chakra.code color="quiet" fontSize="12px" title={text.tray.iso}>
          {iso}
        </chakra.code>
      )}
    </Row>
  );
}

/** Until when, how often, for how many: what the repetition of an activity depends on. */
function RepetitionDetails({ element, model }: { readonly element: Element; readonly model: TrayProps["model"] }) {
  const { dispatch } = useVersionStore().getState();
  const loop = childrenOf(model, element.id, "loopCharacteristics")[0];
  if (!loop) return null;
  const fields =
    loop.type === "standardLoopCharacteristics"
      ? (["loopCondition", "loopMaximum"] as const)
      : (["loopCardinality", "completionCondition"] as const);
  return fields.map((field) => {
    const value = loop[field];
    return (
      <Row key={field} label={text.tray.repetition[field]}>
        <TextField
          label={text.tray.repetition[field]}
          placeholder={text.tray.repetitionHints[field]}
          value={typeof value === "number" ? String(value) : ((value as Expression | undefined)?.text ?? "")}
          onCommit={(typed) => dispatch({ type: "setRepetitionDetail", activity: element.id, field, text: typed })}
        />
      </Row>
    );
  });
}

/** Whose compensation a throwing event asks for: one activity around it, or all that can be compensated. */
function Compensated({ element, model }: { readonly element: Element; readonly model: TrayProps["model"] }) {
  const { dispatch } = useVersionStore().getState();
  const definition = eventDefinitionsOf(model, element.id).find((one) => one.type === "compensateEventDefinition");
  if (!definition) return null;
  const scope = scopeOf(model, element.id);
  const activities = scope ? flowNodesIn(model, scope.id).filter((node) => isActivity(node.type)) : [];
  return (
    <Row label={text.tray.compensates}>
      <Choice
        label={text.tray.compensates}
        value={(definition.activityRef as string | undefined) ?? ""}
        options={[
          ["", text.tray.compensatesAll],
          ...activities.map(
            (activity) => [activity.id, nameOf(model, activity.id) || typeWord(activity.type)] as const,
          ),
        ]}
        onChoose={(value) =>
          dispatch({ type: "setField", id: definition.id, field: "activityRef", value: value === "" ? null : value })
        }
      />
    </Row>
  );
}

/** Which message, signal, error or escalation it is: the same name means the same one everywhere in the model. */
function NamedReference({ element, model }: { readonly element: Element; readonly model: TrayProps["model"] }) {
  const { dispatch } = useVersionStore().getState();
  const reference = referenceOf(model, element);
  if (!reference) return null;
  const label = capital(typeWord(reference.kind));
  return (
    <Row label={label}>
      <TextField
        label={label}
        placeholder={text.tray.referenceHint}
        value={reference.name}
        onCommit={(name) => dispatch({ type: "nameReference", id: element.id, name })}
      />
    </Row>
  );
}
