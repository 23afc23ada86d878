"use client";
import { Box, Button, chakra, Flex } from "@chakra-ui/react";
import { PageLink } from "../controls/PageLink";
import { text } from "../messages";

interface PlainPageProps {
  readonly title: string;
  readonly explain: string;
  readonly retry?: () => void;
}

/** A page that holds nothing but what went wrong and the ways on: where an address leads nowhere, or a page could not be shown. */
export function PlainPage({ title, explain, retry }: PlainPageProps) {
  return (
    <Flex as="main" direction="column" align="center" justify="center" gap={4} minH="100%" px={6} textAlign="center">
      <Box as="h1" fontSize="20px" fontWeight="700">
        {title}
      </Box>
      <chakra.p maxW="52ch" color="quiet" role={retry ? "alert" : undefined}>
        {explain}
      </chakra.p>
      <Flex gap={3} align="center">
        {retry && (
          <Button onClick={retry} bg="accent" color="onAccent">
            {text.shell.retry}
          </Button>
        )}
        <PageLink href="/" color="accent" _hover={{ textDecoration: "underline" }}>
          {text.shell.toHome}
        </PageLink>
        <PageLink href="/find" color="accent" _hover={{ textDecoration: "underline" }}>
          {text.shell.toFind}
        </PageLink>
      </Flex>
    </Flex>
  );
}
