"use client";
import { chakra } from "@chakra-ui/react";
import type { Element, Model } from "@/core/model";
import { bindingOf, boundTo, servedBy } from "@/core/services";
import { PageLink } from "../../controls/PageLink";
import { Row } from "../../controls/trayParts";
import { text } from "../../messages";
import { useDiagram } from "../../version/diagramStore";
import { useVersion } from "../../version/VersionContext";

const words = text.tray.services;

/** The operation a step is bound to, with all others that are, and the candidate services that would do it. */
export function TrayServices({ element, model }: { readonly element: Element; readonly model: Model }) {
  const version = useVersion((state) => state.info.version.id);
  const select = useDiagram((state) => state.select);
  const bound = bindingOf(model, element);
  const others = bound ? boundTo(model, bound.operation.id) : [];
  const served = servedBy(model, element.id);
  const href = `/v/${encodeURIComponent(version)}/hand-off?part=services`;
  return (
    <>
      {bound && (
        <Row label={words.calls}>
          <PageLink href={href} color="accent">
            {words.operation(bound.operation.name ?? "", bound.interface.name ?? "")}
          </PageLink>
          {others.length > 1 && (
            <chakra.button
              type="button"
              color="accent"
              minH="24px"
              cursor="pointer"
              aria-keyshortcuts="Shift+B"
              onClick={() => select(...others.map(({ id }) => id))}
            >
              {words.all(others.length)}
            </chakra.button>
          )}
        </Row>
      )}
      {served.map(({ candidate, operation }) => (
        <Row key={operation.id} label={words.candidate}>
          <PageLink href={href} color="accent">
            {words.operation(operation.name, candidate.name)}
          </PageLink>
        </Row>
      ))}
    </>
  );
}
