"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { type DirectoryEntry, foldedName, type OrganisationNode, organisationOf } from "@/core/directory";
import { EmptyState } from "../controls/states";
import { text } from "../messages";

/** The organisation: units within units, with the roles that belong to them and the people behind. */
export function OrganisationTree({
  entries,
  filter,
  chosen,
  onChoose,
}: {
  readonly entries: readonly DirectoryEntry[];
  readonly filter: string;
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}) {
  const rows: OrganisationNode[] = [];
  const walk = (node: OrganisationNode) => {
    rows.push(node);
    node.children.forEach(walk);
  };
  organisationOf(entries).forEach(walk);
  const shown = rows.filter(({ entry }) => foldedName(entry.name).includes(foldedName(filter)));
  if (shown.length === 0) return <EmptyState>{text.directory.empty(text.directory.one.unit)}</EmptyState>;
  return (
    <Box as="ul" role="tree" aria-label={text.directory.kinds.unit} listStyleType="none">
      {shown.map(({ entry, level, headcount }) => (
        <chakra.li
          key={entry.id}
          role="treeitem"
          aria-level={level + 1}
          aria-selected={entry.id === chosen}
          tabIndex={0}
          display="grid"
          gridTemplateColumns="1fr 120px"
          px={3}
          py={2}
          borderBottomWidth="1px"
          borderColor="line"
          cursor="pointer"
          bg={entry.id === chosen ? "accentSoft" : undefined}
          _hover={{ bg: "accentSoft" }}
          onClick={() => onChoose(entry.id)}
          onKeyDown={(event) => {
            if (event.key === "Enter" || event.key === " ") {
              event.preventDefault();
              onChoose(entry.id);
            }
          }}
        >
          <Flex gap={2} align="center" style={{ paddingInlineStart: level * 20 }} minW={0}>
            {entry.hue && (
              <chakra.span w="5px" h="18px" borderRadius="1px" style={{ background: entry.hue }} aria-hidden="true" />
            )}
            <chakra.span fontWeight={entry.kind === "unit" ? "600" : "400"} truncate>
              {entry.name}
            </chakra.span>
            {entry.kind === "role" && (
              <chakra.span color="quiet" fontSize="12px">
                {text.directory.one.role}
              </chakra.span>
            )}
          </Flex>
          <chakra.span color="quiet" textAlign="end">
            {headcount === undefined ? "" : text.directory.people(headcount)}
          </chakra.span>
        </chakra.li>
      ))}
    </Box>
  );
}
