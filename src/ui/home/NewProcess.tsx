"use client";
import { Flex } from "@chakra-ui/react";
import { useState } from "react";
import { home } from "@/contract";
import { AskDialog } from "../controls/AskDialog";
import { Choice } from "../controls/fields";
import { ask } from "../kernel/ask";
import { didMake } from "../kernel/deletions";
import { text } from "../messages";
import type { Place } from "./ProcessMenu";

/** Where one begins with a new process: by telling, by listing, by drawing. */
export const beginnings = ["brief", "steps", "diagram"] as const;
export type Beginning = (typeof beginnings)[number];
const keptKey = "lucid-lane.beginning";

/** Where this person began the last time. */
function kept(): Beginning {
  const last = localStorage.getItem(keptKey);
  return beginnings.find((one) => one === last) ?? "diagram";
}

/** Areas with those they stand in, in the order of the tree. */
export function areaPaths(areas: readonly Place[]): readonly (readonly [id: string, path: string])[] {
  const pathOf = (area: Place, seen: readonly string[] = []): string => {
    const parent = areas.find(({ id }) => id === area.parent);
    // What stands in itself, by some mistake of old, is still named once.
    if (!parent || seen.includes(parent.id)) return area.name;
    return `${pathOf(parent, [...seen, area.id])} / ${area.name}`;
  };
  return areas.map((area) => [area.id, pathOf(area)] as const).sort(([, a], [, b]) => a.localeCompare(b));
}

/** Asks for a new process: what it is called, which area it belongs to, and where one begins with it. */
export function NewProcess(props: {
  readonly areas: readonly Place[];
  /** The area that is looked at, else the first; empty where there is none yet. */
  readonly target: string;
  readonly firstArea: () => Promise<string>;
  readonly onOpen: (version: string, beginning: Beginning) => void;
  readonly onClose: () => void;
}) {
  const { areas, target, firstArea, onOpen, onClose } = props;
  const [area, setArea] = useState(target);
  const [beginning, setBeginning] = useState(kept);
  return (
    <AskDialog
      title={text.home.newProcess}
      label={text.home.nameOfProcess}
      action={text.home.newProcess}
      onClose={onClose}
      onAnswer={async (name) => {
        const made = await ask(home.createProcess, { name, area: area || (await firstArea()) });
        localStorage.setItem(keptKey, beginning);
        didMake(text.home.made(name), () => ask(home.deleteProcess, { id: made.process }));
        onOpen(made.version, beginning);
      }}
    >
      <Flex gap={4} mt={3} wrap="wrap">
        {areas.length > 0 && (
          <Flex gap={2} align="center">
            {text.home.inArea}
            <Choice label={text.home.inArea} value={area} options={areaPaths(areas)} onChoose={setArea} />
          </Flex>
        )}
        <Flex gap={2} align="center">
          {text.home.beginIn}
          <Choice
            label={text.home.beginIn}
            value={beginning}
            options={beginnings.map((one) => [one, text.stages[one]] as const)}
            onChoose={setBeginning}
          />
        </Flex>
      </Flex>
    </AskDialog>
  );
}
