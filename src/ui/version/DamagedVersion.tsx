"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { inVersion } from "@/contract";
import { complain, tell } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { ask } from "../kernel/ask";
import { useAsked } from "../kernel/queries";
import { locale, text } from "../messages";

/** In the place of a version whose content cannot be read: what is wrong, and the kept states that can be put back. */
export function DamagedVersion({
  version,
  message,
  onMended,
}: {
  readonly version: string;
  readonly message: string;
  readonly onMended: () => void;
}) {
  const states = useAsked(inVersion.listRevisions, { version }).data?.revisions;
  const putBack = async (number: number) => {
    try {
      await ask(inVersion.restoreRevision, { version, number });
      tell({ description: text.version.restored(number) });
      onMended();
    } catch (error) {
      complain(error);
    }
  };
  return (
    <Box as="main" p={10} maxW="760px" mx="auto">
      <chakra.h1 fontSize="18px" fontWeight="700" mb={2}>
        {text.damaged.title}
      </chakra.h1>
      <chakra.p role="alert" color="trouble" mb={3}>
        {message}
      </chakra.p>
      <chakra.p mb={4}>{states?.length === 0 ? text.damaged.none : text.damaged.why}</chakra.p>
      <chakra.ul listStyleType="none" mb={6}>
        {states?.map(({ number, reason, at, member }) => (
          <chakra.li
            key={number}
            display="flex"
            gap={4}
            alignItems="center"
            py={2}
            borderTopWidth="1px"
            borderColor="line"
          >
            <chakra.span w="32px" color="quiet">
              {number}
            </chakra.span>
            <chakra.span flex="1">{reason}</chakra.span>
            <chakra.span color="quiet">
              {member}, {new Date(at).toLocaleString(locale(), { dateStyle: "medium", timeStyle: "short" })}
            </chakra.span>
            <Button size="xs" variant="outline" onClick={() => putBack(number)}>
              {text.damaged.putBack}
            </Button>
          </chakra.li>
        ))}
      </chakra.ul>
      <Flex>
        <PageLink href="/">{text.damaged.home}</PageLink>
      </Flex>
    </Box>
  );
}
