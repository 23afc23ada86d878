"use client";
import { Box, Button, Toaster as ChakraToaster, createToaster, Flex, Text } from "@chakra-ui/react";
import { X } from "lucide-react";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";

// Alt with a letter is taken by what one types into; the package's own key for reaching messages is one of them.
export const toaster = createToaster({ placement: "bottom-start", pauseOnPageIdle: true, max: 3, hotkey: ["F8"] });

/** Short messages at the lower left: what was done, with a way back, or why something could not be done. */
export function Toasts() {
  return (
    <ChakraToaster toaster={toaster} insetInline={{ mdDown: "4" }}>
      {(toast) => (
        <Flex
          bg="paper"
          color="ink"
          borderWidth="1px"
          borderLeftWidth="4px"
          borderColor="line"
          borderLeftColor={toast.type === "error" ? "trouble" : "accent"}
          borderRadius="6px"
          px={4}
          py={3}
          gap={4}
          align="center"
          maxW="440px"
          boxShadow="0 4px 16px rgb(0 0 0 / 12%)"
        >
          <Box flex="1">
            {toast.title && <Text fontWeight="600">{toast.title}</Text>}
            {toast.description && <Text>{toast.description}</Text>}
          </Box>
          {toast.action && (
            <Button
              size="xs"
              variant="outline"
              onClick={() => {
                toast.action?.onClick();
                toaster.dismiss(toast.id);
              }}
            >
              {toast.action.label}
            </Button>
          )}
          <Button size="2xs" variant="ghost" aria-label={text.dialog.close} onClick={() => toaster.dismiss(toast.id)}>
            <X size={14} />
          </Button>
        </Flex>
      )}
    </ChakraToaster>
  );
}

export function complain(error: unknown): void {
  toaster.create({ type: "error", description: wordsOf(error) });
}
