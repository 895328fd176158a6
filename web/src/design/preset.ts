/** PrimeVue's tokens set to ours, so that its controls follow the theme without a second palette. */
import { definePreset } from '@primeuix/themes'
import Aura from '@primeuix/themes/aura'

const primary = Object.fromEntries(
  [50, 100, 200, 300, 400, 500, 600, 700, 800, 900, 950].map((step) => [
    step,
    `color-mix(in srgb, var(--accent), ${step < 500 ? 'var(--surface)' : 'var(--ink)'} ${Math.round(Math.abs(500 - step) / 6)}%)`,
  ]),
)

/** Every grey of PrimeVue comes from here, so that nothing keeps a cold one. */
const surface = {
  0: 'var(--surface)',
  50: 'var(--paper)',
  100: 'var(--sunk)',
  200: 'var(--sunk)',
  300: 'var(--line)',
  400: 'var(--steel)',
  500: 'var(--quiet)',
  600: 'var(--quiet)',
  700: 'var(--ink)',
  800: 'var(--ink)',
  900: 'var(--ink)',
  950: 'var(--ink)',
}
const button = {
  root: {
    secondary: {
      background: 'var(--sunk)',
      hoverBackground: 'var(--line)',
      activeBackground: 'var(--line)',
      borderColor: 'var(--line)',
      hoverBorderColor: 'var(--quiet)',
      activeBorderColor: 'var(--quiet)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      activeColor: 'var(--ink)',
    },
  },
  text: { secondary: { hoverBackground: 'var(--sunk)', activeBackground: 'var(--sunk)', color: 'var(--ink)' } },
}
const toggle = {
  root: {
    background: 'var(--sunk)',
    checkedBackground: 'var(--sunk)',
    hoverBackground: 'var(--sunk)',
    borderColor: 'var(--sunk)',
    checkedBorderColor: 'var(--sunk)',
    color: 'var(--quiet)',
    hoverColor: 'var(--ink)',
    checkedColor: 'var(--ink)',
  },
  content: { checkedBackground: 'var(--surface)', checkedShadow: 'var(--shadow)' },
}

const scheme = {
  surface,
  primary: {
    color: 'var(--accent)',
    contrastColor: 'var(--on-accent)',
    hoverColor: 'color-mix(in srgb, var(--accent), var(--ink) 15%)',
    activeColor: 'color-mix(in srgb, var(--accent), var(--ink) 25%)',
  },
  highlight: {
    background: 'var(--accent-soft)',
    focusBackground: 'var(--accent-soft)',
    color: 'var(--ink)',
    focusColor: 'var(--ink)',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--quiet)', hoverMutedColor: 'var(--ink)' },
  content: {
    background: 'var(--surface)',
    hoverBackground: 'var(--sunk)',
    borderColor: 'var(--line)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  formField: {
    background: 'var(--surface)',
    disabledBackground: 'var(--paper)',
    disabledColor: 'var(--quiet)',
    borderColor: 'var(--quiet)',
    hoverBorderColor: 'var(--ink)',
    focusBorderColor: 'var(--accent)',
    color: 'var(--ink)',
    placeholderColor: 'var(--quiet)',
    shadow: 'none',
  },
}

export const preset = definePreset(Aura, {
  semantic: {
    primary,
    focusRing: { width: '3px', style: 'solid', color: 'var(--accent)', offset: '2px' },
    formField: { paddingX: '0.85rem', paddingY: '0.6rem', borderRadius: 'var(--radius)' },
    colorScheme: { light: scheme, dark: scheme },
  },
  components: {
    button: {
      root: { borderRadius: 'var(--radius)', paddingX: '1rem', paddingY: '0.6rem', label: { fontWeight: '600' } },
      colorScheme: { light: button, dark: button },
    },
    togglebutton: {
      root: { padding: '0.25rem' },
      content: { padding: '0.35rem 0.7rem' },
      colorScheme: { light: toggle, dark: toggle },
    },
  },
})
