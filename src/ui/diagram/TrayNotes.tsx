"use client";
import type { Element } from "@/core/model";
import { TextField } from "../controls/fields";
import { text } from "../messages";
import { useVersionStore } from "../version/VersionContext";

export function TrayNotes({ element }: { readonly element: Element }) {
  const { dispatch } = useVersionStore().getState();
  return (
    <TextField
      label={text.tray.notes}
      placeholder={text.tray.notesHint}
      lines={5}
      value={element.documentation?.[0]?.text ?? ""}
      onCommit={(typed) => dispatch({ type: "describe", id: element.id, text: typed })}
    />
  );
}
