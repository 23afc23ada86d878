import type { Tone } from "./mark";

export const ink = "#1E2430";
export const paper = "var(--chakra-colors-paper)";

/** Colours and dashes of each pen: it is told from the others in grey print as well. */
export const tones: { readonly [tone in Tone]: { readonly colour: string; readonly dash?: string } } = {
  attention: { colour: "var(--chakra-colors-saffron)" },
  accent: { colour: "var(--chakra-colors-accent)" },
  pencil: { colour: "var(--chakra-colors-pencil)", dash: "4 2.5" },
};
