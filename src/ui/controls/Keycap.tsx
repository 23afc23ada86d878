import { chakra } from "@chakra-ui/react";

/** A key as it is printed: beside what it does, everywhere. */
export const Keycap = chakra("kbd", {
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
