/** The look: a drawing office. Chalk paper, ink lines, brick for what is chosen, lichen for what is sound. */
import { colours } from './colours.ts';
import { defaultBaseConfig } from '@chakra-ui/react/preset-base';
import { createSystem, defineConfig } from '@chakra-ui/react/styled-system';
import {
  animationStyles,
  breakpoints,
  buttonRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  dialogSlotRecipe,
  globalCss,
  headingRecipe,
  inputRecipe,
  keyframes,
  layerStyles,
  menuSlotRecipe,
  semanticTokens,
  skeletonRecipe,
  spinnerRecipe,
  textStyles,
  toastSlotRecipe,
  tokens,
} from '@chakra-ui/react/theme';

/** Colours of the library that nothing here is drawn in. Every one left out, and every recipe, is time saved before the page appears. */
const unused = new Set(['yellow', 'teal', 'cyan', 'purple', 'pink', 'blue', 'orange', 'green']);

function used<T extends object>(colours: T): T {
  return Object.fromEntries(Object.entries(colours).filter(([name]) => !unused.has(name))) as T;
}

/** What of the library's own theme is used here. */
const library = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss,
  theme: {
    breakpoints,
    keyframes,
    tokens: { ...tokens, colors: used(tokens.colors!) },
    semanticTokens: { ...semanticTokens, colors: used(semanticTokens.colors!) },
    recipes: {
      button: buttonRecipe,
      heading: headingRecipe,
      input: inputRecipe,
      skeleton: skeletonRecipe,
      spinner: spinnerRecipe,
    },
    slotRecipes: { dialog: dialogSlotRecipe, menu: menuSlotRecipe, toast: toastSlotRecipe },
    textStyles,
    layerStyles,
    animationStyles,
  },
});

/** The colours as the styles of the rooms name them: `paperDeep` is `--paper-deep`. */
const variables: Record<`--${string}`, string> = Object.fromEntries(
  Object.entries(colours).map(([name, value]) => [`--${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)}`, value]),
);

const config = defineConfig({
  globalCss: {
    ':root': variables,
    'html, body, #root': { height: '100%' },
    body: { bg: 'chalk', color: 'ink', fontFamily: 'body', fontSize: '14px', lineHeight: 1.4 },
  },
  theme: {
    tokens: {
      colors: {
        ...Object.fromEntries(Object.entries(colours).map(([name, value]) => [name, { value }])),
        veil: { value: `color-mix(in srgb, ${colours.ink} 35%, transparent)` },
      },
      shadows: { card: { value: `0 7px 27px color-mix(in srgb, ${colours.ink} 20%, transparent)` } },
      fonts: {
        body: { value: "'Barlow', sans-serif" },
        heading: { value: "'Barlow Semi Condensed', sans-serif" },
        label: { value: "'Barlow Semi Condensed', sans-serif" },
      },
      radii: { sm: { value: '3px' }, md: { value: '4px' }, lg: { value: '6px' } },
    },
    semanticTokens: {
      colors: {
        bg: {
          DEFAULT: { value: '{colors.paper}' },
          panel: { value: '{colors.paper}' },
          subtle: { value: '{colors.chalk}' },
          muted: { value: '{colors.chalk}' },
        },
        fg: { DEFAULT: { value: '{colors.ink}' }, muted: { value: '{colors.ink2}' } },
        border: { DEFAULT: { value: '{colors.line}' } },
      },
    },
  },
});

export const system = createSystem(defaultBaseConfig, library, config);
