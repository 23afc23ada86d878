import { chakra } from "@chakra-ui/react";
import { Fragment, type ReactNode } from "react";
import type { RichNode } from "@/core/model";

/** Rich text as it reads. */
export function RichTextView({ node }: { readonly node: RichNode }) {
  const inside = node.content?.map((child, at) => <RichTextView key={at} node={child} />);
  switch (node.type) {
    case "text":
      return (node.marks ?? []).reduce<ReactNode>(
        (inner, mark) =>
          mark.type === "bold" ? (
            <strong>{inner}</strong>
          ) : mark.type !== "link" ? (
            <em>{inner}</em>
          ) : (
            <chakra.span textDecoration="underline" color="accent" title={mark.attrs.href}>
              {inner}
            </chakra.span>
          ),
        node.text,
      );
    case "hardBreak":
      return <br />;
    case "paragraph":
      return <chakra.p mb={1}>{inside}</chakra.p>;
    case "bulletList":
      return (
        <chakra.ul ps={4} listStyleType="disc">
          {inside}
        </chakra.ul>
      );
    case "orderedList":
      return (
        <chakra.ol ps={5} listStyleType="decimal">
          {inside}
        </chakra.ol>
      );
    case "listItem":
      return <li>{inside}</li>;
    default:
      return <Fragment>{inside}</Fragment>;
  }
}
