"use client";
import { chakra } from "@chakra-ui/react";
import type { LucideIcon } from "lucide-react";

/** A small tool beside what it is for: its picture, with its name for who points at it or hears it. */
export function IconTool(props: {
  readonly name: string;
  /** What it is for, where the name alone does not tell several apart. */
  readonly label?: string;
  readonly icon: LucideIcon;
  readonly disabled?: boolean;
  readonly onPress: () => void;
}) {
  const { name, label = name, icon: Icon, disabled, onPress } = props;
  return (
    <chakra.button
      type="button"
      aria-label={label}
      title={name}
      w="24px"
      h="24px"
      flexShrink={0}
      display="inline-flex"
      alignItems="center"
      justifyContent="center"
      color="quiet"
      cursor="pointer"
      disabled={disabled}
      _disabled={{ opacity: 0.4 }}
      onClick={onPress}
    >
      <Icon size={13} />
    </chakra.button>
  );
}
