/** The look: a drawing office. Chalk paper, ink lines, brick for what is chosen, lichen for what is sound. */
import { createSystem, defaultConfig, defineConfig } from '@chakra-ui/react';

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
        bg: { DEFAULT: { value: '{colors.paper}' }, panel: { value: '{colors.paper}' }, subtle: { value: '{colors.chalk}' }, muted: { value: '{colors.chalk}' } },
        fg: { DEFAULT: { value: '{colors.ink}' }, muted: { value: '{colors.ink2}' } },
        border: { DEFAULT: { value: '{colors.line}' } },
      },
    },
  },
});

export const system = createSystem(defaultConfig, config);
