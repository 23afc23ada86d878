"use client";
import { NativeSelect } from "@chakra-ui/react";
import { memo } from "react";
import { ancestorsOf, type Id, isFlowNode, type Model, nameOf } from "@/core/model";
import { text } from "../../messages";

interface Page {
  readonly id: Id;
  readonly name?: string;
  readonly element?: Id;
}

function labelOf(model: Model, page: Page): string {
  const element = page.element === undefined ? undefined : model.elements.get(page.element);
  if (!element) return page.name ?? page.id;
  if (element.type === "collaboration") return text.diagram.whole;
  const path = ancestorsOf(model, element.id)
    .filter((step) => isFlowNode(step.type))
    .reverse();
  return path.map((step) => nameOf(model, step.id)).join(" / ") || nameOf(model, element.id) || text.diagram.whole;
}

/** Where a page stands within the others; the way back up from a sub-process. */
export const PageTrail = memo(function PageTrail({
  model,
  diagram,
  pages,
  onPage,
}: {
  readonly model: Model;
  readonly diagram: Id | undefined;
  readonly pages: readonly Page[];
  readonly onPage: (id: Id) => void;
}) {
  if (pages.length < 2) return null;
  return (
    <NativeSelect.Root size="xs" bg="paper" borderRadius="6px" w="auto" maxW="220px">
      <NativeSelect.Field
        aria-label={text.diagram.pages}
        value={diagram}
        onChange={(event) => onPage(event.target.value)}
        borderColor="line"
        pe={8}
      >
        {pages.map((page) => (
          <option key={page.id} value={page.id}>
            {labelOf(model, page)}
          </option>
        ))}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  );
});
