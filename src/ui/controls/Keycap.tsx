import { chakra, type HTMLChakraProps } from "@chakra-ui/react";
import { text } from "../messages";

const Cap = chakra("kbd", {
  base: {
    display: "inline-block",
    minWidth: "18px",
    paddingInline: "5px",
    fontSize: "11px",
    lineHeight: "16px",
    fontFamily: "body",
    fontWeight: "600",
    textAlign: "center",
    color: "ink",
    background: "sheet",
    borderWidth: "1px",
    borderBottomWidth: "2px",
    borderColor: "line",
    borderRadius: "4px",
  },
});

/** What stands on keys, in the language of the interface. */
export const keyNames = (keys: string): string =>
  keys
    .split(" ")
    .map((key) => text.keys.caps[key] ?? key)
    .join(" ");

/** A key as it is printed: beside what it does, everywhere. */
export function Keycap({ children, ...look }: HTMLChakraProps<"kbd"> & { readonly children: string }) {
  return <Cap {...look}>{keyNames(children)}</Cap>;
}
