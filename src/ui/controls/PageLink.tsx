"use client";
import { chakra } from "@chakra-ui/react";
// biome-ignore lint/style/noRestrictedImports: the one place that the others go through.
import NextLink from "next/link";
import { useRouter } from "next/navigation";
import type { ComponentProps } from "react";

/**
 * A link to a page of ours. The page is fetched when somebody is about to go there (points at the link, comes to it by Tab, puts a
 * finger on it), not already when the link is seen: Home alone shows a link for every stage of every process.
 */
function NearLink({ onMouseEnter, onFocus, onTouchStart, ...props }: ComponentProps<typeof NextLink>) {
  const router = useRouter();
  const near = () => typeof props.href === "string" && router.prefetch(props.href);
  return (
    <NextLink
      {...props}
      prefetch={false}
      onMouseEnter={(event) => {
        near();
        onMouseEnter?.(event);
      }}
      onFocus={(event) => {
        near();
        onFocus?.(event);
      }}
      onTouchStart={(event) => {
        near();
        onTouchStart?.(event);
      }}
    />
  );
}

export const PageLink = chakra(NearLink);
