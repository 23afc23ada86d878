"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { PageLink } from "../controls/PageLink";
import { text } from "../messages";
import { type StageName, type StageSigns, stagePath, stages } from "./register";
import { SignIcon, signWords } from "./SignIcon";

interface JourneyProps {
  readonly version: string;
  readonly current: StageName;
  readonly signs: StageSigns;
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
        {stages.map(({ name: stage, words }, at) => (
          <Flex as="li" key={stage} align="center" flex={at === 0 ? undefined : "1"}>
            {at > 0 && (
              <chakra.span flex="1" minW="14px" h="1px" bg="pencil" position="relative" aria-hidden="true">
                <chakra.svg position="absolute" right="0" top="-4px" w="9px" h="9px" viewBox="0 0 9 9">
                  <path d="M0 0L9 4.5L0 9Z" fill="var(--chakra-colors-pencil)" />
                </chakra.svg>
              </chakra.span>
            )}
            <PageLink
              href={stagePath(version, stage)}
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
              {text.stages[words]}
              <chakra.span srOnly>, {signWords(signs[stage])}</chakra.span>
            </PageLink>
          </Flex>
        ))}
      </Flex>
    </Flex>
  );
}
