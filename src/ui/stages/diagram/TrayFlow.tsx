"use client";
import { chakra } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { canHoldBoundaryEvents } from "@/core/commands";
import { boundaryEventsOf, type Element, type Id, incomingOf, isA, nameOf, outgoingOf } from "@/core/model";
import { Choice } from "../../controls/fields";
import { Row, type TrayProps } from "../../controls/trayParts";
import { text, typeWord } from "../../messages";
import { addKind } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";

// With it comes the FEEL package, which only conditions need.
const ConditionField = dynamic(() => import("./ConditionField").then((file) => file.ConditionField), {
  loading: () => null,
});

export function TrayFlow({ element, model, diagram, onGo }: TrayProps & { readonly element: Element }) {
  const store = useVersionStore();
  const { dispatch } = store.getState();
  const named = (id: Id | undefined) =>
    id === undefined ? text.tray.none : nameOf(model, id) || typeWord(model.elements.get(id)?.type ?? "");
  const go = (id: Id | undefined, detail?: string) =>
    id === undefined ? null : (
      <chakra.button
        key={id + (detail ?? "")}
        type="button"
        onClick={() => onGo(id)}
        textAlign="start"
        cursor="pointer"
        minH="24px"
        _hover={{ color: "accent", textDecoration: "underline" }}
      >
        {named(id)}
        {detail && <chakra.span color="quiet"> {detail}</chakra.span>}
      </chakra.button>
    );
  if (isA(element, "sequenceFlow", "messageFlow", "association")) {
    const source = model.elements.get(element.sourceRef ?? "");
    const decides =
      source?.type === "exclusiveGateway" ||
      source?.type === "inclusiveGateway" ||
      source?.type === "complexGateway" ||
      source?.type.endsWith("ask");
    return (
      <>
        <Row label={text.tray.source}>{go(element.sourceRef)}</Row>
        <Row label={text.tray.target}>{go(element.targetRef)}</Row>
        {element.type === "sequenceFlow" && decides && (
          <>
            <Row label={text.tray.condition}>
              <ConditionField flow={element} model={model} />
            </Row>
            <Row label={text.tray.default}>
              <Choice
                label={text.tray.default}
                value={source?.default === element.id ? "yes" : "no"}
                options={[
                  ["yes", text.tray.yes],
                  ["no", text.tray.no],
                ]}
                onChoose={(value) =>
                  source &&
                  dispatch({
                    type: "setField",
                    id: source.id,
                    field: "default",
                    value: value === "yes" ? element.id : null,
                  })
                }
              />
            </Row>
          </>
        )}
      </>
    );
  }
  const outgoing = outgoingOf(model, element.id);
  return (
    <>
      <Row label={text.tray.from}>{incomingOf(model, element.id).map((flow) => go(flow.sourceRef, flow.name))}</Row>
      <Row label={text.tray.to}>{outgoing.map((flow) => go(flow.targetRef, flow.name))}</Row>
      {isA(element, "exclusiveGateway", "inclusiveGateway", "complexGateway") && outgoing.length > 1 && (
        <Row label={text.tray.default}>
          <Choice
            label={text.tray.default}
            value={(element.default as string | undefined) ?? ""}
            options={[
              ["", text.tray.none],
              ...outgoing.map((flow) => [flow.id, flow.name ?? named(flow.targetRef)] as const),
            ]}
            onChoose={(value) =>
              dispatch({ type: "setField", id: element.id, field: "default", value: value === "" ? null : value })
            }
          />
        </Row>
      )}
      {canHoldBoundaryEvents(element) && (
        <Row label={text.tray.edge}>
          {boundaryEventsOf(model, element.id).map((event) => go(event.id))}
          <chakra.button
            type="button"
            color="accent"
            cursor="pointer"
            minH="24px"
            onClick={() => addKind(store, diagram, element, { type: "boundaryEvent", trigger: "timerEventDefinition" })}
          >
            {text.tray.attach}
          </chakra.button>
        </Row>
      )}
    </>
  );
}
