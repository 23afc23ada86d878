"use client";
import { documentsOf } from "@/core/directory";
import type { Element } from "@/core/model";
import { Chip } from "../../controls/Chip";
import { EntryPicker } from "../../controls/EntryPicker";
import { Row, type TrayProps } from "../../controls/trayParts";
import { text } from "../../messages";
import { newId } from "../../version/actions";
import { useVersionStore } from "../../version/VersionContext";

export function TrayData({ element, model, diagram }: TrayProps & { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  const documents = documentsOf(model, element.id);
  return (
    <>
      {(["in", "out"] as const).map((direction) => (
        <Row key={direction} label={text.tray[direction]}>
          {documents
            .filter((document) => document.direction === direction)
            .map((document) => (
              <Chip
                key={document.association}
                onRemove={() => dispatch({ type: "delete", ids: [document.association] })}
                removeLabel={text.tray.remove(document.name)}
              >
                {document.name}
              </Chip>
            ))}
          <EntryPicker
            kind="document"
            label={`${text.tray[direction]}: ${text.tray.add}`}
            onChoose={(document) =>
              dispatch({ type: "giveDocument", diagram, step: element.id, document, direction, id: newId("paper") })
            }
          />
        </Row>
      ))}
    </>
  );
}
