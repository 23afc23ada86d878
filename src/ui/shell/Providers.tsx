"use client";
import { ChakraProvider, Flex } from "@chakra-ui/react";
import { ThemeProvider } from "next-themes";
import type { ReactNode } from "react";
import { Foot } from "../controls/Foot";
import { QueriesProvider } from "../kernel/queries";
import { SignedOut } from "./SignedOut";
import { StyleRegistry } from "./StyleRegistry";
import { UndoKeys } from "./takingBack";
import { system } from "./theme";

export function Providers({ nonce, children }: { readonly nonce: string; readonly children: ReactNode }) {
  return (
    <StyleRegistry>
      <QueriesProvider>
        <ChakraProvider value={system}>
          <ThemeProvider nonce={nonce} attribute="class" disableTransitionOnChange defaultTheme="light">
            <Flex direction="column" h="100dvh">
              <Flex direction="column" flex="1" minH={0} overflowY="auto">
                {children}
              </Flex>
              <Foot />
            </Flex>
            <SignedOut />
            <UndoKeys />
          </ThemeProvider>
        </ChakraProvider>
      </QueriesProvider>
    </StyleRegistry>
  );
}
