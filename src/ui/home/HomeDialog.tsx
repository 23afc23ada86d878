"use client";
import { nanoid } from "nanoid";
import { home } from "@/contract";
import type { HomeArea, HomeProcess } from "@/contract/home";
import { AskDialog } from "../controls/AskDialog";
import { ask } from "../kernel/ask";
import { text } from "../messages";

/** What Home is asking for. */
export type Asking =
  | { readonly kind: "area"; readonly parent: HomeArea | null }
  | { readonly kind: "process" }
  | { readonly kind: "rename-area"; readonly area: HomeArea }
  | { readonly kind: "rename-process"; readonly process: HomeProcess }
  | { readonly kind: "copy"; readonly process: HomeProcess };

interface HomeDialogProps {
  readonly asking: Asking;
  readonly target: string;
  readonly onClose: () => void;
  readonly onDone: () => Promise<void>;
  readonly onOpen: (version: string) => void;
  readonly firstArea: () => Promise<string>;
}

export function HomeDialog({ asking, target, onClose, onDone, onOpen, firstArea }: HomeDialogProps) {
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
            await ask(home.createArea, { id: nanoid(12), name, parent: asking.parent?.id ?? null });
            await onDone();
          }}
        />
      );
    case "process":
      return (
        <AskDialog
          {...shared}
          title={text.home.newProcess}
          label={text.home.nameOfProcess}
          action={text.home.newProcess}
          onAnswer={async (name) => {
            const made = await ask(home.createProcess, { name, area: target || (await firstArea()) });
            onOpen(made.version);
          }}
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
            await ask(home.renameArea, { id: asking.area.id, name });
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
            await ask(home.renameProcess, { id: asking.process.id, name });
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
            await ask(home.copyProcess, { id: asking.process.id, name, area: asking.process.area });
            await onDone();
          }}
        />
      );
  }
}
