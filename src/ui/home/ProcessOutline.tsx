"use client";
import { Box, chakra } from "@chakra-ui/react";
import { useMemo } from "react";
import { inVersion } from "@/contract";
import { trustStored } from "@/core/model";
import { PageLink } from "../controls/PageLink";
import { useAsked } from "../kernel/queries";
import { wordsOf } from "../kernel/wordsOf";
import { text } from "../messages";
import { outlineOf } from "../version/outlineOf";

/** The rest of the tree: pools, lanes and elements of a version, each a way to its place in the diagram. */
export function ProcessOutline({ version }: { readonly version: string }) {
  const { data, error } = useAsked(inVersion.openVersion, { version });
  const rows = useMemo(() => data && outlineOf(trustStored(data.model)), [data]);
  if (error) return <chakra.span role="alert">{wordsOf(error)}</chakra.span>;
  if (!rows) return <chakra.span color="quiet">{text.shell.loading}</chakra.span>;
  return (
    <Box as="ul" listStyleType="none" columnWidth="260px" columnGap={6} m={0} py={1} aria-label={text.home.elements}>
      {rows.map((row) => (
        <chakra.li key={row.id} ps={`${(row.level - 1) * 14}px`} truncate lineHeight="24px">
          <PageLink
            href={`/v/${encodeURIComponent(version)}/diagram?element=${encodeURIComponent(row.id)}`}
            color="ink"
            _hover={{ color: "accent", textDecoration: "underline" }}
          >
            {row.label || `(${row.type})`}
          </PageLink>
        </chakra.li>
      ))}
    </Box>
  );
}
