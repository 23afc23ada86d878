"use client";
import { Box, chakra, Flex, Grid } from "@chakra-ui/react";
import { useState } from "react";
import { allSymbols, type BpmnSymbol } from "@/core/commands";
import { term } from "@/core/messages";
import { FigureView } from "../canvas/FigureView";
import { text, worded } from "../messages";
import { TopRow } from "../shell/TopRow";

const symbols = allSymbols();
const room = { width: 168, height: 92 };

/** Every symbol a diagram can hold, with its name, drawn by the code that draws diagrams. */
export function GalleryPage() {
  const [typed, setTyped] = useState("");
  const wanted = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const groups = symbols
    .map((group) => {
      const title = worded(term(group.title));
      const called = ({ name }: BpmnSymbol) => `${title} ${worded(term(name))}`.toLowerCase();
      return { title, shown: group.symbols.filter((symbol) => wanted.every((word) => called(symbol).includes(word))) };
    })
    .filter(({ shown }) => shown.length > 0);
  return (
    <Flex direction="column" h="100%" minH={0}>
      <TopRow trail={<span>{text.gallery.title}</span>} />
      <Box as="main" id="content" flex="1" overflowY="auto" px={8} py={5} bg="ground">
        <Flex align="baseline" gap={4} mb={4} wrap="wrap">
          <chakra.h1 fontSize="20px" fontWeight="700">
            {text.gallery.title}
          </chakra.h1>
          <chakra.p color="quiet" flex="1">
            {text.gallery.explain}
          </chakra.p>
          <chakra.input
            aria-label={text.gallery.filter}
            placeholder={text.gallery.filter}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            h="30px"
            w="240px"
            px={3}
            bg="paper"
            borderWidth="1px"
            borderColor="line"
            borderRadius="6px"
          />
        </Flex>
        {groups.length === 0 && <chakra.p color="quiet">{text.diagram.noKind}</chakra.p>}
        {groups.map(({ title, shown }) => (
          <Box as="section" key={title} aria-label={title} mb={6}>
            <chakra.h2 fontSize="14px" fontWeight="700" mb={2}>
              {title}
            </chakra.h2>
            <Grid as="ul" templateColumns="repeat(auto-fill, minmax(184px, 1fr))" gap={2} listStyleType="none">
              {shown.map((symbol) => (
                <SymbolCard key={symbol.name} symbol={symbol} />
              ))}
            </Grid>
          </Box>
        ))}
      </Box>
    </Flex>
  );
}

function SymbolCard({ symbol: { name: kind, scene } }: { readonly symbol: BpmnSymbol }) {
  const name = worded(term(kind));
  const { x, y, width, height } = scene.bounds;
  const margin = 6;
  // Small symbols are shown larger than they are drawn, so that their markers can be told apart.
  const scale = Math.min(2, room.width / (width + 2 * margin), room.height / (height + 2 * margin));
  const seen = { width: room.width / scale, height: room.height / scale };
  return (
    <Flex
      as="li"
      direction="column"
      align="center"
      gap={2}
      p={2}
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      borderRadius="6px"
    >
      <svg
        {...room}
        viewBox={`${x + width / 2 - seen.width / 2} ${y + height / 2 - seen.height / 2} ${seen.width} ${seen.height}`}
        role="img"
        aria-label={name}
      >
        {scene.figures.map((figure) => (
          <FigureView key={figure.id} figure={figure} />
        ))}
      </svg>
      <chakra.span fontSize="13px" textAlign="center" lineHeight="1.25">
        {name}
      </chakra.span>
    </Flex>
  );
}
