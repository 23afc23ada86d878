"use client";
import { useCallback, useMemo } from "react";
import { inVersion } from "@/contract";
import { allKindsThatMayFollow, type Kind, lostBy, perform, possibleKinds } from "@/core/commands";
import { type Element, type ElementType, type Id, type Model, nameOf, scopeOf } from "@/core/model";
import { AskDialog } from "../../controls/AskDialog";
import { tell } from "../../controls/notices";
import { closeThen } from "../../controls/PaletteDialog";
import { ask } from "../../kernel/ask";
import { reasons, text, typeWord } from "../../messages";
import { connectTo, newId } from "../../version/actions";
import { useDiagram } from "../../version/diagramStore";
import { useVersion, useVersionStore } from "../../version/VersionContext";
import { KindMenu } from "./KindMenu";
import { LeadTo } from "./LeadTo";
import { ToCounterpart } from "./ToCounterpart";

interface QuestionsProps {
  readonly model: Model;
  readonly diagram: Id;
  readonly selected: Element | undefined;
  readonly onAdd: (kind: Kind) => void;
}

/** What is asked about the present choice: which kind, which name. */
export function Questions({ model, diagram, selected, onAdd }: QuestionsProps) {
  const store = useVersionStore();
  const version = useVersion((state) => state.info.version.id);
  const asking = useDiagram((state) => state.asking);
  const selection = useDiagram((state) => state.selection);
  const { select } = useDiagram.getState();
  const close = useCallback(() => useDiagram.getState().set({ asking: null }), []);
  const page = model.diagrams.get(diagram)?.element;
  const here = page === undefined ? undefined : model.elements.get(page);
  const scope = (selected && scopeOf(model, selected.id)) ?? (here?.type === "collaboration" ? undefined : here);
  const becomes = useMemo(
    () => (asking === "replace" && selected ? possibleKinds(model, diagram, selected, scope) : []),
    [asking, model, diagram, selected, scope],
  );
  if (asking === "more")
    return (
      <KindMenu
        title={selected ? text.diagram.after : text.diagram.nothing}
        groups={allKindsThatMayFollow(model, selected, scope)}
        // A name editor opens, which the focus going back to the page would close again.
        onChoose={(kind) => closeThen(close, () => onAdd(kind))}
        onClose={close}
      />
    );
  if (asking === "replace" && selected)
    return (
      <KindMenu
        title={text.diagram.becomes(nameOf(model, selected.id) || typeWord(selected.type))}
        groups={becomes}
        loses={(kind) => lostBy(model, selected, kind.type as ElementType)}
        onChoose={(kind) => {
          store.getState().dispatch({ type: "replace", diagram, id: selected.id, kind });
          close();
        }}
        onClose={close}
      />
    );
  if (asking === "leadTo" && selected)
    return (
      <LeadTo
        model={model}
        diagram={diagram}
        from={selected}
        onClose={close}
        onChoose={(target) => {
          connectTo(store, diagram, selected.id, target);
          close();
        }}
      />
    );
  if (asking === "counterpart" && selected) return <ToCounterpart selected={selected} onClose={close} />;
  if (asking !== "takeOut") return null;
  const ids = [...selection];
  return (
    <AskDialog
      title={text.diagram.takeOut}
      explain={text.diagram.takeOutWhy}
      label={text.diagram.takeOutName}
      start={ids.length === 1 && selected ? nameOf(model, selected.id) : ""}
      action={text.diagram.takeOutAction}
      onClose={close}
      onAnswer={async (name) => {
        const id = newId("callActivity");
        const command = (calledElement: string) =>
          ({ type: "callInstead", diagram, ids, id, calledElement, name }) as const;
        // Before anything is made, whether the call can take their place.
        const trial = perform(store.getState().model, command("process"));
        if (!trial.ok) throw new Error(reasons(trial.problems));
        await store.getState().settled();
        const made = await ask(inVersion.extractProcess, { version, diagram, ids, name });
        if (store.getState().dispatch(command(made.calledElement))) select(id);
        tell({ description: text.diagram.tookOut(name) });
      }}
    />
  );
}
