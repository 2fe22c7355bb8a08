import { createTheme, defaultVariantColorsResolver, type MantineColorsTuple } from '@mantine/core';

const ink: MantineColorsTuple = [
  '#f4f3ef',
  '#e6e4dc',
  '#cfccc0',
  '#b1ad9e',
  '#8d897a',
  '#6a675c',
  '#4c4a43',
  '#33322d',
  '#21201d',
  '#121210',
];

/** Ink on plain sheet: controls are grey so that the one hue for "signal passes here now" stands alone. */
export const theme = createTheme({
  primaryColor: 'ink',
  primaryShade: { light: 8, dark: 2 },
  colors: {
    ink,
    dark: [
      '#e9e7df',
      '#c9c6bb',
      '#a09d92',
      '#77746b',
      '#55534c',
      '#3a3934',
      '#2a2926',
      '#1c1b19',
      '#141412',
      '#0b0b0a',
    ],
  },
  // By name alone: a part that no view shows yet need not be fetched for it.
  components: {
    // The entries of a list exist while it is open.
    Combobox: { defaultProps: { keepMounted: false } },
    // What is chosen is marked at once: a mark that slides has every frame of the page drawn anew.
    SegmentedControl: { defaultProps: { transitionDuration: 0 } },
    Drawer: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
  },
  // What stands on the main hue follows the sheet: light on ink, dark on the light of the dark sheet.
  variantColorResolver: (input) => {
    const colors = defaultVariantColorsResolver(input);
    const isMain = input.variant === 'filled' && (input.color ?? 'ink') === 'ink';
    return isMain ? { ...colors, color: 'var(--on-ink)' } : colors;
  },
  autoContrast: true,
  fontFamily: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif',
  headings: {
    fontFamily: '"Atkinson Hyperlegible Next Variable", system-ui, sans-serif',
    fontWeight: '700',
  },
  defaultRadius: 3,
  respectReducedMotion: true,
  cursorType: 'pointer',
});
