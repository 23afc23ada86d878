"use client";
import { Box, chakra } from "@chakra-ui/react";
import { PageLink } from "../../controls/PageLink";
import { text, worded } from "../../messages";
import { useVersion } from "../../version/VersionContext";
import { useWalks } from "../../version/walks";

/** How the kept walks go; those that go otherwise, with what is otherwise. */
export function WalksNote() {
  const { tests, results, failing } = useWalks();
  const version = useVersion((state) => state.info.version.id);
  const others = tests.filter((test) => (results.get(test.id)?.verdict ?? "passes") !== "passes");
  return (
    <Box as="section" mb={6} data-testid="check-walks">
      <chakra.h2 fontSize="14px" fontWeight="700" mb={1}>
        {text.walk.kept}
      </chakra.h2>
      <chakra.p color={failing > 0 ? "attention" : "good"}>
        {text.walk.results(tests.length - failing, tests.length)}{" "}
        <PageLink href={`/v/${encodeURIComponent(version)}/walk`}>
          <chakra.span color="accent">{text.walk.open}</chakra.span>
        </PageLink>
      </chakra.p>
      <Box as="ul" ps={5}>
        {others.map((test) => (
          <li key={test.id}>
            <strong>{test.name}</strong>: {results.get(test.id)?.differences.slice(0, 1).map(worded)}
          </li>
        ))}
      </Box>
    </Box>
  );
}
