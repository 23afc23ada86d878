import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  dialogSlotRecipe,
  fieldSlotRecipe,
  inputRecipe,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  nativeSelectSlotRecipe,
  progressSlotRecipe,
  semanticTokens,
  skeletonRecipe,
  tableSlotRecipe,
  textareaRecipe,
  textStyles,
  tokens,
} from "@chakra-ui/react/theme";
import { remembering } from "./remembering";

const { transparent, current, black, white, gray, blackAlpha } = tokens.colors;
const { bg, fg, border, gray: grays } = semanticTokens.colors;
/** Widths are said in steps or by name, never as a fraction or a part of the window. */
const sizes = Object.fromEntries(Object.entries(tokens.sizes).filter(([name]) => !/\/|v[hw]$/.test(name)));

/**
 * The component library's own look, of the components and in the colours that are used here only: all of them are 30 kB more to load, and
 * every page that opens works out each colour there is, by day and by night.
 */
const components = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss: {
    // Said once and inherited. The library says these, and the defaults of filters and rings that are not used here, on each element anew.
    html: {
      color: "fg",
      background: "bg",
      colorPalette: "gray",
      "--global-font-mono": "fonts.mono",
      "--global-font-body": "fonts.body",
      "--global-color-border": "colors.border",
    },
    "*::placeholder, *[data-placeholder]": { color: "fg.muted/80" },
  },
  theme: {
    breakpoints,
    keyframes,
    tokens: {
      ...tokens,
      sizes,
      colors: { transparent, current, black, white, gray, blackAlpha: { 500: blackAlpha[500] } },
    },
    semanticTokens: {
      ...semanticTokens,
      colors: {
        bg: { DEFAULT: bg.DEFAULT, subtle: bg.subtle, muted: bg.muted, emphasized: bg.emphasized, panel: bg.panel },
        fg: { DEFAULT: fg.DEFAULT, muted: fg.muted },
        border: { DEFAULT: border.DEFAULT },
        gray: grays,
      },
    },
    textStyles,
    layerStyles,
    animationStyles,
    recipes: { button: buttonRecipe, input: inputRecipe, skeleton: skeletonRecipe, textarea: textareaRecipe },
    slotRecipes: {
      dialog: dialogSlotRecipe,
      field: fieldSlotRecipe,
      menu: menuSlotRecipe,
      nativeSelect: nativeSelectSlotRecipe,
      progress: progressSlotRecipe,
      table: tableSlotRecipe,
    },
  },
});

const pair = (light: string, dark: string) => ({ value: { _light: light, _dark: dark } });

/** Ink on tracing paper, by day and by night. The one place where colours, type and corners are chosen. */
const config = defineConfig({
  globalCss: {
    "html, body": { background: "ground", color: "ink", fontSize: "14px", lineHeight: "1.45", height: "100%" },
    "*:focus-visible": { outline: "2px solid {colors.accent}", outlineOffset: "2px" },
    "input[type=checkbox], input[type=radio]": { accentColor: "{colors.accent}" },
    "::selection": { background: "{colors.accentSoft}" },
    "*": {
      "@media (prefers-reduced-motion: reduce)": {
        animationDuration: "0s !important",
        transitionDuration: "0s !important",
      },
    },
  },
  theme: {
    tokens: {
      fonts: {
        heading: { value: "'Atkinson Hyperlegible Next', Verdana, sans-serif" },
        body: { value: "'Atkinson Hyperlegible Next', Verdana, sans-serif" },
      },
      // The package reckons from letters of 16 pixels, and ours are 14: its smallest would be hard to read.
      fontSizes: { "2xs": { value: "11px" }, xs: { value: "12px" }, sm: { value: "13px" } },
      radii: { l1: { value: "4px" }, l2: { value: "6px" }, l3: { value: "6px" } },
    },
    semanticTokens: {
      colors: {
        ground: pair("#F7F4EC", "#171A21"),
        paper: pair("#FFFFFF", "#20242D"),
        sheet: pair("#FBFAF5", "#1B1F27"),
        ink: pair("#1E2430", "#E9E6DC"),
        quiet: pair("#5A6272", "#A9AFBC"),
        line: pair("#DAD4C5", "#39404D"),
        dots: pair("#E6E0D1", "#262B35"),
        pencil: pair("#64748B", "#94A3B8"),
        accent: pair("#5B2A6E", "#CFA6E0"),
        accentSoft: pair("#F1E9F5", "#3A2A44"),
        onAccent: pair("#FFFFFF", "#221629"),
        saffron: pair("#D98E04", "#F0B64A"),
        attention: pair("#8A5A00", "#F0B64A"),
        good: pair("#0F766E", "#5EC4B8"),
        trouble: pair("#A63A2B", "#F0998C"),
        bg: {
          DEFAULT: pair("#F7F4EC", "#171A21"),
          panel: pair("#FFFFFF", "#20242D"),
          subtle: pair("#FBFAF5", "#1B1F27"),
        },
        fg: {
          DEFAULT: pair("#1E2430", "#E9E6DC"),
          muted: pair("#5A6272", "#A9AFBC"),
          error: pair("#A63A2B", "#F0998C"),
        },
        border: { DEFAULT: pair("#DAD4C5", "#39404D"), error: pair("#A63A2B", "#F0998C") },
      },
    },
  },
});

export const system = remembering(createSystem(defaultBaseConfig, components, config));
