"use client";
import { nanoid } from "nanoid";
import { home } from "@/contract";
import type { HomeProcess } from "@/contract/home";
import { AskDialog } from "../controls/AskDialog";
import { ask } from "../kernel/ask";
import { didMake } from "../kernel/deletions";
import { doAct } from "../kernel/history";
import { text } from "../messages";
import { type Beginning, NewProcess } from "./NewProcess";
import type { Place } from "./ProcessMenu";

/** What Home is asking for. */
export type Asking =
  | { readonly kind: "area"; readonly parent: Place | null }
  | { readonly kind: "process"; readonly into?: string }
  | { readonly kind: "rename-area"; readonly area: Place }
  | { readonly kind: "rename-process"; readonly process: HomeProcess }
  | { readonly kind: "copy"; readonly process: HomeProcess };

interface HomeDialogProps {
  readonly asking: Asking;
  readonly areas: readonly Place[];
  readonly target: string;
  readonly onClose: () => void;
  readonly onDone: () => Promise<void>;
  readonly onOpen: (version: string, beginning: Beginning) => void;
  readonly firstArea: () => Promise<string>;
}

export function HomeDialog({ asking, areas, target, onClose, onDone, onOpen, firstArea }: HomeDialogProps) {
  const shared = { onClose };
  switch (asking.kind) {
    case "area":
      return (
        <AskDialog
          {...shared}
          title={asking.parent ? text.home.newAreaIn(asking.parent.name) : text.home.newArea}
          label={text.home.nameOfArea}
          action={text.home.newArea}
          onAnswer={async (name) => {
            const id = nanoid(12);
            await ask(home.createArea, { id, name, parent: asking.parent?.id ?? null });
            didMake(text.home.made(name), () => ask(home.deleteArea, { id }));
            await onDone();
          }}
        />
      );
    case "process":
      return (
        <NewProcess
          areas={areas}
          target={asking.into ?? target}
          firstArea={firstArea}
          onOpen={onOpen}
          onClose={onClose}
        />
      );
    case "rename-area":
      return (
        <AskDialog
          {...shared}
          title={text.home.rename}
          label={text.home.nameOfArea}
          start={asking.area.name}
          action={text.home.rename}
          onAnswer={async (name) => {
            const { id, name: before } = asking.area;
            await doAct(
              text.home.renamed(before, name),
              () => ask(home.renameArea, { id, name }),
              () => ask(home.renameArea, { id, name: before }),
            );
            await onDone();
          }}
        />
      );
    case "rename-process":
      return (
        <AskDialog
          {...shared}
          title={text.home.rename}
          label={text.home.nameOfProcess}
          start={asking.process.name}
          action={text.home.rename}
          onAnswer={async (name) => {
            const { id, name: before } = asking.process;
            await doAct(
              text.home.renamed(before, name),
              () => ask(home.renameProcess, { id, name }),
              () => ask(home.renameProcess, { id, name: before }),
            );
            await onDone();
          }}
        />
      );
    case "copy":
      return (
        <AskDialog
          {...shared}
          title={text.home.copy}
          label={text.home.nameOfProcess}
          start={text.home.copyOf(asking.process.name)}
          action={text.home.copy}
          onAnswer={async (name) => {
            const made = await ask(home.copyProcess, { id: asking.process.id, name, area: asking.process.area });
            didMake(text.home.made(name), () => ask(home.deleteProcess, { id: made.process }));
            await onDone();
          }}
        />
      );
  }
}
