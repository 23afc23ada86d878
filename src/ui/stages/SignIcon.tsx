"use client";
import { chakra } from "@chakra-ui/react";
import { CircleCheck, CircleDashed, Contrast } from "lucide-react";
import { text } from "../messages";
import type { StageSign } from "./stage";

export function SignIcon({ sign, size = 15 }: { readonly sign: StageSign; readonly size?: number }) {
  switch (sign.kind) {
    case "none":
      return <CircleDashed size={size} color="var(--chakra-colors-pencil)" aria-hidden />;
    case "begun":
      return <Contrast size={size} color="var(--chakra-colors-ink)" aria-hidden />;
    case "done":
      return (
        <CircleCheck size={size} color="var(--chakra-colors-paper)" fill="var(--chakra-colors-good)" aria-hidden />
      );
    case "attention":
      return (
        <chakra.span display="inline-flex" alignItems="center" gap="3px" aria-hidden="true">
          <svg width={size} height={size} viewBox="0 0 16 16" role="presentation">
            <path
              d="M8 1.4L15 14.2H1Z"
              fill="var(--chakra-colors-saffron)"
              strokeLinejoin="round"
              stroke="var(--chakra-colors-saffron)"
              strokeWidth="1.4"
            />
            <path d="M8 5.4V9.8M8 11.4V12.8" stroke="#1E2430" strokeWidth="1.7" />
          </svg>
          {/* Beside the sign: in it, no number could be read. */}
          <chakra.span fontSize="12px" fontWeight="700" lineHeight="1" color="attention">
            {sign.count > 999 ? "999+" : sign.count}
          </chakra.span>
        </chakra.span>
      );
  }
}

export function signWords(sign: StageSign): string {
  return sign.kind === "attention" ? text.signs.attention(sign.count) : text.signs[sign.kind];
}
