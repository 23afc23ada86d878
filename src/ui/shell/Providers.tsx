"use client";
import { ChakraProvider, Flex } from "@chakra-ui/react";
import { ThemeProvider } from "next-themes";
import type { ReactNode } from "react";
import { Foot } from "../controls/Foot";
import { QueriesProvider } from "../kernel/queries";
import type { Language } from "../messages/languages";
import { InLanguage } from "./InLanguage";
import { SignedOut } from "./SignedOut";
import { StyleRegistry } from "./StyleRegistry";
import { UndoKeys } from "./takingBack";
import { system } from "./theme";

export function Providers(props: {
  readonly nonce: string;
  readonly language: Language;
  readonly children: ReactNode;
}) {
  const { nonce, language, children } = props;
  return (
    <StyleRegistry>
      <QueriesProvider>
        <ChakraProvider value={system}>
          <ThemeProvider nonce={nonce} attribute="class" disableTransitionOnChange defaultTheme="light">
            <InLanguage language={language}>
              <Flex direction="column" h="100dvh">
                <Flex direction="column" flex="1" minH={0} overflowY="auto">
                  {children}
                </Flex>
                <Foot />
              </Flex>
              <SignedOut />
              <UndoKeys />
            </InLanguage>
          </ThemeProvider>
        </ChakraProvider>
      </QueriesProvider>
    </StyleRegistry>
  );
}
