/** The look: a drawing office. Chalk paper, ink lines, brick for what is chosen, lichen for what is sound. */
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

const config = defineConfig({
  globalCss: {
    'html, body, #root': { height: '100%' },
    body: { bg: 'chalk', color: 'ink', fontFamily: 'body', fontSize: '14px', lineHeight: 1.4 },
  },
  theme: {
    tokens: {
      colors: {
        chalk: { value: '#F4F0E6' },
        paper: { value: '#FDFBF5' },
        ink: { value: '#1E2A33' },
        ink2: { value: '#5B6670' },
        line: { value: '#DAD3C2' },
        brick: { value: '#B0442B' },
        lichen: { value: '#4C6632' },
        glass: { value: '#C9D6DA' },
        warning: { value: '#8A5A08' },
      },
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
