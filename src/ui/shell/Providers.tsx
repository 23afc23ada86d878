"use client";
import { ChakraProvider } from "@chakra-ui/react";
import { ThemeProvider } from "next-themes";
import type { ReactNode } from "react";
import { Toasts } from "../controls/toaster";
import { QueriesProvider } from "../kernel/queries";
import { StyleRegistry } from "./StyleRegistry";
import { system } from "./theme";

export function Providers({ nonce, children }: { readonly nonce: string; readonly children: ReactNode }) {
  return (
    <StyleRegistry>
      <QueriesProvider>
        <ChakraProvider value={system}>
          <ThemeProvider nonce={nonce} attribute="class" disableTransitionOnChange defaultTheme="light">
            {children}
            <Toasts />
          </ThemeProvider>
        </ChakraProvider>
      </QueriesProvider>
    </StyleRegistry>
  );
}
