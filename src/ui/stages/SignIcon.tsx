"use client";
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
        <svg width={size + 3} height={size + 1} viewBox="0 0 18 16" aria-hidden="true">
          <path
            d="M9 1L17 15H1Z"
            fill="var(--chakra-colors-saffron)"
            strokeLinejoin="round"
            stroke="var(--chakra-colors-saffron)"
            strokeWidth="1.4"
          />
          <text x="9" y="13.2" fontSize="9" fontWeight="700" textAnchor="middle" fill="#1E2430">
            {sign.count > 99 ? "99" : sign.count}
          </text>
        </svg>
      );
  }
}

export function signWords(sign: StageSign): string {
  return sign.kind === "attention" ? text.signs.attention(sign.count) : text.signs[sign.kind];
}
