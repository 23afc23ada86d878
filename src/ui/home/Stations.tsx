"use client";
import { chakra, Flex } from "@chakra-ui/react";
import { Fragment } from "react";
import type { HomeProcess, HomeVersion } from "@/contract/home";
import { PageLink } from "../controls/PageLink";
import { text } from "../messages";
import { stagePath, stageSigns, stages } from "../stages/register";
import { SignIcon, signWords } from "../stages/SignIcon";

/** The journey of a version as a small line of stations: each says in words what its sign means, and leads to its stage. */
export function Stations(props: {
  readonly version: HomeVersion;
  readonly brief: HomeProcess["brief"];
  /** Versions of the process. */
  readonly versions: number;
}) {
  const { version, brief, versions } = props;
  const { summary } = version;
  const signs = stageSigns({
    brief,
    nodes: summary?.steps ?? 0,
    open: summary ?? undefined,
    walks: summary?.walks ?? 0,
    failingWalks: summary?.failingWalks ?? 0,
    assumed: summary?.assumed ?? "nothing",
    versions,
    isCopy: version.source !== null,
    handedOff: version.handedOff,
    live: version.live,
  });
  return (
    <Flex align="center" h="22px" minW={0}>
      {stages.map(({ name, words: called }, at) => {
        const words = `${text.stages[called]}: ${signWords(signs[name])}`;
        return (
          <Fragment key={name}>
            {at > 0 && <chakra.span flex="1" maxW="22px" minW="3px" h="1.5px" bg="line" aria-hidden="true" />}
            <PageLink
              href={stagePath(version.id, name)}
              title={words}
              // The card or row itself is what Tab goes to; the stations are a click away.
              tabIndex={-1}
              display="inline-flex"
              alignItems="center"
              justifyContent="center"
              minW="22px"
              h="22px"
              position="relative"
              borderRadius="6px"
              _hover={{ bg: "accentSoft" }}
            >
              <SignIcon sign={signs[name]} size={14} />
              <chakra.span srOnly>{words}</chakra.span>
            </PageLink>
          </Fragment>
        );
      })}
    </Flex>
  );
}
