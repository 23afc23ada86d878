"use client";
import { Button, chakra } from "@chakra-ui/react";
import { finding, inVersion } from "@/contract";
import type { Callable } from "@/contract/version";
import { calledProcessOf, calledVersionOf, type Element } from "@/core/model";
import { Choice } from "../../controls/fields";
import { PageLink } from "../../controls/PageLink";
import { Row } from "../../controls/trayParts";
import { useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersion, useVersionStore } from "../../version/VersionContext";

const none: readonly Callable[] = [];

/** The process a call activity calls, which of its versions is meant, and the way there. */
export function CalledProcess({
  element,
  onVersion,
}: {
  readonly element: Element;
  readonly onVersion: (version: string) => void;
}) {
  const { dispatch } = useVersionStore().getState();
  const callable = useAsked(finding.listCallable, {}).data?.callable ?? none;
  const called = (element.calledElement as string | undefined) ?? "";
  const record = calledProcessOf(element)?.process;
  const fitting = callable.filter((one) => one.bpmnId === called);
  const known = fitting.find((one) => one.process === record) ?? fitting[0];
  const keyOf = (one: Callable) => `${one.process} ${one.bpmnId}`;
  const meant = calledVersionOf(element);
  const options = [
    ["", text.tray.none] as const,
    ...callable.map((one) => [keyOf(one), one.name] as const),
    ...(called && !known ? [[called, called] as const] : []),
  ];
  return (
    <Row label={text.tray.called}>
      <Choice
        label={text.tray.called}
        value={known ? keyOf(known) : called}
        options={options}
        onChoose={(value) => {
          const chosen = callable.find((one) => keyOf(one) === value);
          if (!chosen && value !== "") return;
          const to = chosen ? { id: chosen.bpmnId, process: chosen.process, name: chosen.name } : null;
          dispatch({ type: "setCalled", id: element.id, called: to });
        }}
      />
      {known && (known.versions.length > 1 || meant) && (
        <Choice
          label={text.tray.calledVersion}
          value={meant?.version ?? ""}
          options={[
            ["", text.tray.calledCurrent],
            ...known.versions.map((version) => [version.id, version.name] as const),
            ...(meant && !known.versions.some((version) => version.id === meant.version)
              ? [[meant.version, meant.name] as const]
              : []),
          ]}
          onChoose={(value) => {
            const version = known.versions.find((one) => one.id === value);
            dispatch({
              type: "setCalledVersion",
              id: element.id,
              called: version ? { version: version.id, name: version.name } : null,
            });
          }}
        />
      )}
      {known && (
        <Button size="xs" variant="outline" onClick={() => onVersion(meant?.version ?? known.version)}>
          {text.diagram.openPage}
        </Button>
      )}
    </Row>
  );
}

/** Who calls this process: the call activities of other processes, each with the way there. */
export function CalledFrom() {
  const version = useVersion((state) => state.info.version.id);
  const callers = useAsked(inVersion.listCallers, { version }).data?.callers ?? [];
  return (
    <Row label={text.tray.calledFrom}>
      {callers.length === 0 && <chakra.span color="quiet">{text.tray.calledByNobody}</chakra.span>}
      {callers.map((caller) => (
        <PageLink
          key={`${caller.version} ${caller.element}`}
          href={`/v/${encodeURIComponent(caller.version)}/diagram?element=${encodeURIComponent(caller.element)}`}
          color="accent"
          textDecoration="underline"
        >
          {caller.elementName || text.tray.aCall}
          <chakra.span color="quiet">
            {" "}
            {caller.process}, {caller.versionName}
          </chakra.span>
        </PageLink>
      ))}
    </Row>
  );
}
