"use client";
import { Box, Button, Flex, Skeleton, Text } from "@chakra-ui/react";
import { text } from "../messages";
import { PageLink } from "./PageLink";

/** What every screen shows while it has nothing to show yet. */
export function LoadingPage({ label }: { readonly label: string }) {
  return (
    <Box as="main" p={6} aria-busy="true">
      <Text color="quiet" mb={4} role="status">
        {label}
      </Text>
      <Skeleton height="28px" mb={3} />
      <Skeleton height="220px" />
    </Box>
  );
}

interface ErrorPageProps {
  readonly message: string;
  readonly retry: () => void;
  /** Home itself has no way home. */
  readonly isHome?: boolean;
}

/** What a page could not show, with the ways on: once more, or home. */
export function ErrorPage({ message, retry, isHome }: ErrorPageProps) {
  return (
    <Flex as="main" direction="column" align="center" gap={4} p={16}>
      <Text maxW="52ch" textAlign="center" role="alert">
        {message}
      </Text>
      <Button onClick={retry} bg="accent" color="onAccent">
        {text.shell.retry}
      </Button>
      {!isHome && (
        <PageLink href="/" color="accent" _hover={{ textDecoration: "underline" }}>
          {text.shell.toHome}
        </PageLink>
      )}
    </Flex>
  );
}

export function EmptyState({ children }: { readonly children: React.ReactNode }) {
  return (
    <Flex direction="column" align="center" gap={4} py={12} px={6} color="quiet" textAlign="center">
      {children}
    </Flex>
  );
}
