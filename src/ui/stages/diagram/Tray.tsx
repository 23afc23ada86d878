"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import dynamic from "next/dynamic";
import { memo, type ReactNode } from "react";
import { type Element, isActivity, isConnection, isFlowNode, participantOf, processesOf } from "@/core/model";
import type { TrayProps } from "../../controls/trayParts";
import { text, worded } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import { useFindings } from "../../version/findings";
import { TrayAttributes } from "./TrayAttributes";
import { TrayData } from "./TrayData";
import { TrayDecision } from "./TrayDecision";
import { TrayFlow } from "./TrayFlow";
import { TrayLinks } from "./TrayLinks";
import { TrayNotes } from "./TrayNotes";
import { TrayPast } from "./TrayPast";
import { TrayServices } from "./TrayServices";
import { TraySeveral } from "./TraySeveral";
import { TrayWhat } from "./TrayWhat";
import { TrayWho } from "./TrayWho";

// With it come the words of figures, which a page that is only drawn needs not.
const TrayFigures = dynamic(() => import("./TrayFigures").then((file) => file.TrayFigures), { loading: () => null });

/** Under the canvas: what the selected element is, who does it and with what, its flow, data and instructions. */
export const Tray = memo(function Tray(props: TrayProps) {
  const { model, selection } = props;
  const height = useDiagram((state) => state.trayHeight);
  const [only] = selection;
  const page = model.diagrams.get(props.diagram);
  // With nothing selected it is about the process itself.
  const whole = page?.element === undefined ? undefined : model.elements.get(page.element);
  const process =
    whole?.type === "collaboration"
      ? processesOf(model).find((candidate) => participantOf(model, candidate.id))
      : whole;
  const element =
    selection.length === 0 ? process : selection.length === 1 && only ? model.elements.get(only) : undefined;
  return (
    <Flex
      as="section"
      aria-label={text.tray.what}
      flexShrink={0}
      style={height === null ? { maxHeight: "33%" } : { height, maxHeight: "60%" }}
      bg="sheet"
      overflow="auto"
      data-testid="tray"
    >
      {element ? (
        <Columns key={element.id} element={element} {...props} />
      ) : selection.length > 1 ? (
        <TraySeveral {...props} />
      ) : (
        <chakra.p color="quiet" p={5}>
          {text.tray.nothing}
        </chakra.p>
      )}
    </Flex>
  );
});

function Columns({ element, ...props }: TrayProps & { readonly element: Element }) {
  const { findings } = useFindings();
  const own = findings.filter((finding) => finding.elements.includes(element.id) && finding.severity !== "advice");
  const hasPeople = isFlowNode(element.type) || element.type === "lane";
  return (
    <>
      <Column title={text.tray.what}>
        <TrayWhat element={element} {...props} />
      </Column>
      {hasPeople && (
        <Column title={text.tray.who}>
          <TrayWho element={element} {...props} />
          {element.type === "lane" && <TrayFigures element={element} model={props.model} />}
        </Column>
      )}
      {(isFlowNode(element.type) || isConnection(element.type)) && (
        <Column title={text.tray.flow}>
          <TrayFlow element={element} {...props} />
          <TrayFigures element={element} model={props.model} />
        </Column>
      )}
      {isActivity(element.type) && (
        <Column title={text.tray.data}>
          <TrayData element={element} {...props} />
          {element.type === "businessRuleTask" && <TrayDecision element={element} model={props.model} />}
          <TrayServices element={element} model={props.model} />
        </Column>
      )}
      <Column title={own.length > 0 ? `${text.tray.notes} · ${text.tray.findings}` : text.tray.notes}>
        {own.map((finding) => (
          <chakra.p
            key={finding.rule + finding.elements.join()}
            color={finding.severity === "error" ? "trouble" : "attention"}
            fontSize="13px"
            mb={2}
          >
            {worded(finding.said)}
          </chakra.p>
        ))}
        <TrayNotes element={element} />
        <TrayLinks element={element} />
        <TrayAttributes element={element} />
        <TrayPast element={element} />
      </Column>
    </>
  );
}

function Column({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box
      flex="1 1 0"
      minW="200px"
      px={4}
      py={3}
      borderRightWidth="1px"
      borderColor="line"
      _last={{ borderRightWidth: 0 }}
      overflowY="auto"
    >
      <chakra.h2 fontSize="12px" fontWeight="600" color="quiet" mb={2}>
        {title}
      </chakra.h2>
      {children}
    </Box>
  );
}
