"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { CircleCheck, CircleDashed, Contrast } from "lucide-react";
import NextLink from "next/link";
import { text } from "../messages";
import { type StageName, type StageSign, stages } from "./stageSigns";

const Link = chakra(NextLink);
const routes: { readonly [stage in StageName]: string } = {
  brief: "brief",
  steps: "steps",
  diagram: "diagram",
  check: "check",
  walk: "walk",
  compare: "compare",
  handoff: "hand-off",
};

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

interface JourneyProps {
  readonly version: string;
  readonly current: StageName;
  readonly signs: { readonly [stage in StageName]: StageSign };
}

/** Row 2: the analyst's own work as one lane, its stages joined by flow arrows. */
export function Journey({ version, current, signs }: JourneyProps) {
  return (
    <Flex
      as="nav"
      aria-label={text.shell.journey}
      h="46px"
      align="center"
      bg="paper"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
      overflowX="auto"
    >
      <chakra.div
        alignSelf="stretch"
        w="16px"
        bg="accentSoft"
        borderRightWidth="1px"
        borderColor="ink"
        flexShrink={0}
        aria-hidden="true"
      />
      <Flex as="ol" flex="1" align="center" px={4} listStyleType="none" m={0}>
        {stages.map((stage, at) => (
          <Flex as="li" key={stage} align="center" flex={at === 0 ? undefined : "1"}>
            {at > 0 && (
              <chakra.span flex="1" minW="28px" h="1px" bg="pencil" position="relative" aria-hidden="true">
                <chakra.svg position="absolute" right="0" top="-4px" w="9px" h="9px" viewBox="0 0 9 9">
                  <path d="M0 0L9 4.5L0 9Z" fill="var(--chakra-colors-pencil)" />
                </chakra.svg>
              </chakra.span>
            )}
            <Link
              href={`/v/${encodeURIComponent(version)}/${routes[stage]}`}
              aria-current={stage === current ? "page" : undefined}
              display="flex"
              alignItems="center"
              gap={2}
              h="30px"
              px={3}
              color={stage === current ? "accent" : "ink"}
              fontWeight={stage === current ? "700" : "400"}
              bg="paper"
              borderWidth="1px"
              borderBottomWidth={stage === current ? "3px" : "1px"}
              borderColor={stage === current ? "accent" : "line"}
              borderRadius="6px"
              _hover={{ borderColor: "accent" }}
            >
              <SignIcon sign={signs[stage]} />
              {text.stages[stage]}
              <chakra.span srOnly>, {signWords(signs[stage])}</chakra.span>
            </Link>
          </Flex>
        ))}
      </Flex>
    </Flex>
  );
}
