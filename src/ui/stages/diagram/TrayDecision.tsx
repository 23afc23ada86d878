"use client";
import { useRouter } from "next/navigation";
import { useMemo } from "react";
import { decisions } from "@/contract";
import { inputsNeeded, modelOf, openDocument, tableFileText } from "@/core/decisions";
import { dataInReach, decidedBy, type Element, fieldUsesOf, type Model, nameOf } from "@/core/model";
import { Choice, TextField } from "../../controls/fields";
import { complain } from "../../controls/notices";
import { PageLink } from "../../controls/PageLink";
import { Row } from "../../controls/trayParts";
import { ask } from "../../kernel/ask";
import { lookAgain, useAsked } from "../../kernel/queries";
import { text } from "../../messages";
import { useVersionStore } from "../../version/VersionContext";

const words = text.tray.decision;
const pathTo = (file: string, decision: string) =>
  `/decisions/${encodeURIComponent(file)}?decision=${encodeURIComponent(decision)}`;

/** What a business rule task decides by, what its result is called, and which data of the process it is given. */
export function TrayDecision({ element, model }: { readonly element: Element; readonly model: Model }) {
  const store = useVersionStore();
  const { dispatch } = store.getState();
  const router = useRouter();
  const by = decidedBy(element);
  const { data } = useAsked(decisions.listDecisionFiles, {});
  const { data: texts } = useAsked(
    decisions.decisionTexts,
    { ids: by ? [by.file] : [] },
    { isWanted: by !== undefined },
  );
  const needed = useMemo(() => {
    const opened = texts?.files[0] && openDocument(new TextEncoder().encode(texts.files[0].content));
    const known = opened?.ok ? modelOf(opened.value) : undefined;
    const decision = known?.decisions.get(by?.decision ?? "");
    return known && decision ? inputsNeeded(known, decision) : [];
  }, [texts, by?.decision]);
  const listed = (data?.files ?? []).flatMap((file) =>
    file.decisions.map((one) => ({ key: `${file.id} ${one.id}`, file, decision: one })),
  );
  const isListed = by && listed.some(({ key }) => key === `${by.file} ${by.decision}`);
  const choose = (key: string) => {
    if (key === "new") return void begin().catch(complain);
    const found = listed.find((one) => one.key === key);
    dispatch({
      type: "decideBy",
      id: element.id,
      to: found
        ? {
            file: found.file.id,
            decision: found.decision.id,
            name: found.decision.name,
            answers: found.decision.answers && [...found.decision.answers],
            needs: [...found.decision.needs],
          }
        : null,
    });
  };
  /** A file of its own with a table, named as the step, tied to it and opened. */
  const begin = async () => {
    const name = nameOf(model, element.id) || words.unnamed;
    const called = name.charAt(0).toLowerCase() + name.slice(1);
    const { id: file } = await ask(decisions.createDecisionFile, { name, content: tableFileText(name, called) });
    await lookAgain([{ kind: "directory" }]);
    dispatch({
      type: "decideBy",
      id: element.id,
      to: { file, decision: "decision", name: called, answers: null, needs: [] },
    });
    await store.getState().settled();
    router.push(pathTo(file, "decision"));
  };
  const uses = new Map(fieldUsesOf(element).flatMap((use) => (use.direction === "in" ? [[use.field, use.is]] : [])));
  const reach = dataInReach(model, element.id);
  return (
    <>
      <Row label={words.label}>
        <Choice
          label={words.label}
          value={by ? `${by.file} ${by.decision}` : ""}
          options={[
            ["", words.none],
            ...(by && !isListed ? [[`${by.file} ${by.decision}`, by.name] as const] : []),
            ...listed.map(({ key, file, decision }) => [key, `${file.name}: ${decision.name}`] as const),
            ["new", words.create],
          ]}
          onChoose={choose}
        />
        {by && (
          <PageLink href={pathTo(by.file, by.decision)} color="accent">
            {words.open}
          </PageLink>
        )}
      </Row>
      {by && (
        <Row label={words.result}>
          <TextField
            label={words.result}
            value={by.result}
            onCommit={(result) =>
              dispatch({
                type: "decideBy",
                id: element.id,
                to: {
                  ...by,
                  result: result.trim(),
                  answers: by.answers ? [...by.answers] : null,
                  needs: [...by.needs],
                },
              })
            }
          />
        </Row>
      )}
      {needed.map(({ id, name }) => (
        <Row key={id} label={name}>
          <TextField
            label={words.given(name)}
            placeholder={reach.includes(name) ? name : words.byName}
            value={uses.get(name) ?? ""}
            onCommit={(is) =>
              dispatch({
                type: "mapField",
                id: element.id,
                direction: "in",
                field: name,
                is: is.trim() === "" ? null : is.trim(),
              })
            }
          />
        </Row>
      ))}
    </>
  );
}
