"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { expressionOf, expressionProblem, itemOf, namesOf, parametersOf } from "@/core/decisions";
import { TextField } from "../controls/fields";
import { text } from "../messages";
import { useDecisions } from "./decisionStore";

const words = text.decisions;

/** An expression in FEEL, of a decision or of shared knowledge; what is wrong with it at once, in words. */
export function ExpressionView({ id }: { readonly id: string }) {
  const { document, edit } = useDecisions();
  const item = document && itemOf(document.root, id);
  if (!document || !item) return null;
  const local = item.name.replace(/^.*:/, "");
  if (local === "inputData") return <chakra.p color="quiet">{words.noTable}</chakra.p>;
  const held = expressionOf(item);
  const parameters = parametersOf(item);
  const problem = held === undefined ? undefined : expressionProblem(held, [...namesOf(document.root), ...parameters]);
  return (
    <Flex direction="column" gap={3} maxW="820px">
      {local === "businessKnowledgeModel" && (
        <TextField
          label={words.parameters}
          value={parameters.join(", ")}
          onCommit={(next) =>
            edit(words.editing.parameters, {
              type: "parameters",
              id,
              names: next.split(",").flatMap((one) => one.replace(/\s+/g, " ").trim() || []),
            })
          }
        />
      )}
      {held === undefined ? (
        <chakra.p color="quiet">{words.otherLogic}</chakra.p>
      ) : (
        <>
          <TextField
            label={words.expression}
            value={held}
            lines={6}
            onCommit={(next) => edit(words.editing.expression, { type: "expression", id, text: next.trim() })}
          />
          {problem && (
            <chakra.p role="alert" color="trouble" fontSize="13px">
              ! {problem.text}
            </chakra.p>
          )}
        </>
      )}
    </Flex>
  );
}
