"use client";
import { Button, chakra, Flex } from "@chakra-ui/react";
import { BookOpen, Moon, Search, Sun } from "lucide-react";
import dynamic from "next/dynamic";
import { useTheme } from "next-themes";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { Keycap } from "../controls/Keycap";
import { complain, tell } from "../controls/notices";
import { PageLink } from "../controls/PageLink";
import { sendBytes } from "../kernel/ask";
import { text } from "../messages";
import { Mark } from "./Mark";
import { MemberButton } from "./MemberButton";
import { type PaletteCommand, usePalette } from "./paletteStore";
import { historyCommands } from "./takingBack";

// Loaded when the page has come to rest, before somebody asks for it.
const findAnything = () => import("./FindAnything");
const MemberMenu = dynamic(() => import("./MemberMenu").then((file) => file.MemberMenu), { loading: () => null });
const FindAnything = dynamic(() => findAnything().then((file) => file.FindAnything), { loading: () => null });

interface TopRowProps {
  /** The trail behind the product's name. */
  readonly trail?: ReactNode;
  /** Saved state and the like, before the people. */
  readonly state?: ReactNode;
  readonly commands?: readonly PaletteCommand[];
}

/** Row 1 of every screen: where one is, a way to anything, whether all is saved, who is there. */
export function TopRow({ trail, state, commands = [] }: TopRowProps) {
  const finding = usePalette((state) => state.isOpen);
  const { setOpen: setFinding } = usePalette.getState();
  const { resolvedTheme, setTheme } = useTheme();
  const [mounted, setMounted] = useState(false);
  const [menuWanted, setMenuWanted] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => setMounted(true), []);
  useEffect(() => {
    const timer = setTimeout(() => void findAnything(), 3000);
    return () => clearTimeout(timer);
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      // Whoever presses this key alone is on the way to the palette.
      if (event.key === "Control" || event.key === "Meta") void findAnything();
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setFinding(true);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [setFinding]);
  const dark = mounted && resolvedTheme === "dark";
  const restore = async (chosen: File | undefined) => {
    if (!chosen || !window.confirm(text.shell.restoreAsk)) return;
    try {
      await sendBytes("/api/restore", chosen);
      tell({ description: text.shell.restored });
      window.location.assign("/");
    } catch (error) {
      complain(error);
    }
  };
  return (
    <Flex
      as="header"
      h="44px"
      px={4}
      gap={3}
      align="center"
      bg="sheet"
      borderBottomWidth="1px"
      borderColor="line"
      flexShrink={0}
    >
      <chakra.a
        href="#content"
        position="absolute"
        left="-999px"
        _focus={{ left: "8px", top: "8px", bg: "paper", px: 3, py: 1, zIndex: 10 }}
      >
        {text.shell.skip}
      </chakra.a>
      <PageLink
        href="/"
        aria-label={text.product}
        display="flex"
        alignItems="center"
        gap={2}
        fontWeight="700"
        color="ink"
        flexShrink={0}
      >
        <Mark />
        <chakra.span hideBelow="md">{text.product}</chakra.span>
      </PageLink>
      <Flex as="nav" aria-label={text.shell.home} align="center" gap={2} minW={0} flex="1" color="quiet">
        {trail}
      </Flex>
      <Button
        variant="outline"
        h="30px"
        w={{ base: "40px", md: "248px" }}
        px={3}
        aria-label={text.shell.find}
        justifyContent="space-between"
        bg="paper"
        color="quiet"
        fontWeight="400"
        borderColor="line"
        flexShrink={0}
        onClick={() => setFinding(true)}
      >
        <Flex align="center" gap={2}>
          <Search size={14} aria-hidden />
          <chakra.span hideBelow="md">{text.shell.find}</chakra.span>
        </Flex>
        <chakra.span hideBelow="md">
          <Keycap>Ctrl K</Keycap>
        </chakra.span>
      </Button>
      {state}
      <PageLink
        href="/directory"
        aria-label={text.shell.directory}
        display="flex"
        alignItems="center"
        gap={1.5}
        color="ink"
        px={2}
        h="30px"
        borderRadius="6px"
        _hover={{ bg: "accentSoft" }}
        flexShrink={0}
      >
        <BookOpen size={15} aria-hidden />
        <chakra.span hideBelow="md">{text.shell.directory}</chakra.span>
      </PageLink>
      <Button
        variant="ghost"
        h="30px"
        minW="30px"
        px={0}
        aria-label={dark ? text.shell.light : text.shell.dark}
        onClick={() => setTheme(dark ? "light" : "dark")}
      >
        {dark ? <Sun size={15} /> : <Moon size={15} />}
      </Button>
      {menuWanted ? (
        <MemberMenu onRestore={() => file.current?.click()} />
      ) : (
        <MemberButton onClick={() => setMenuWanted(true)} />
      )}
      <input
        ref={file}
        type="file"
        hidden
        aria-label={text.shell.restore}
        accept=".backup"
        onChange={(event) => void restore(event.target.files?.[0])}
      />
      {finding && <FindAnything commands={[...historyCommands(), ...commands]} onClose={() => setFinding(false)} />}
    </Flex>
  );
}
