"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { X } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { createPortal } from "react-dom";
import { text } from "../messages";
import { hold, letGo, type Notice, untell, useNotices } from "./notices";

const toolsId = "foot-tools";

/**
 * The last line of every page: what was just done or could not be done, and at its end what the page has to look at itself with.
 * It is a line of its own, so that neither ever lies over a drawing or a field.
 */
export function Foot() {
  const notices = useNotices((state) => state.notices);
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "F8") return;
      line.current?.querySelector("button")?.focus();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Flex
      as="footer"
      minH="34px"
      flexShrink={0}
      align="end"
      bg="paper"
      borderTopWidth="1px"
      borderColor="line"
      position="relative"
      // What is said stays to be read while a dialog lies over the page.
      zIndex={notices.length > 0 ? 1500 : undefined}
      // On a page that needs no line there is none.
      css={{ "&:not(:has(button, select))": { minHeight: 0, borderTopWidth: 0 } }}
    >
      <Flex
        ref={line}
        role="log"
        aria-label={text.shell.messages}
        aria-live="polite"
        direction="column"
        flex="1"
        minW={0}
        onMouseEnter={hold}
        onMouseLeave={letGo}
        onFocus={hold}
        onBlur={letGo}
      >
        {notices.map((notice) => (
          <NoticeLine key={notice.id} notice={notice} />
        ))}
      </Flex>
      <Flex id={toolsId} minH="33px" gap={1} px={2} align="center" flexShrink={0} _empty={{ minH: 0 }} />
    </Flex>
  );
}

function NoticeLine({ notice: { id, type, description, action } }: { readonly notice: Notice }) {
  return (
    <Flex
      role={type === "error" ? "alert" : undefined}
      minH="33px"
      align="center"
      gap={2}
      ps={3}
      borderLeftWidth="4px"
      borderLeftColor={type === "error" ? "trouble" : "accent"}
    >
      <chakra.span py={1} lineHeight="1.35">
        {description}
      </chakra.span>
      {action && (
        <Button
          size="2xs"
          variant="outline"
          borderColor="line"
          flexShrink={0}
          onClick={() => {
            action.onClick();
            untell(id);
          }}
        >
          {action.label}
        </Button>
      )}
      <Button size="2xs" variant="ghost" flexShrink={0} aria-label={text.dialog.close} onClick={() => untell(id)}>
        <X size={14} />
      </Button>
    </Flex>
  );
}

/** Puts what a page is looked at with into the foot. */
export function FootTools({ children }: { readonly children: ReactNode }) {
  const [place, setPlace] = useState<HTMLElement | null>(null);
  useEffect(() => setPlace(document.getElementById(toolsId)), []);
  return place && createPortal(children, place);
}
