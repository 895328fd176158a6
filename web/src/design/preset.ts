/** PrimeVue's tokens set to ours, so that its controls follow the theme without a second palette. */
import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import inputtext from '@primeuix/themes/aura/inputtext'
import progressbar from '@primeuix/themes/aura/progressbar'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import slider from '@primeuix/themes/aura/slider'
import textarea from '@primeuix/themes/aura/textarea'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import { markRaw } from 'vue'

/** Those that `controls/` has, and what a selectbutton is made of: all of them would be 90 kB of script for nothing. */
const components = { button, inputtext, progressbar, selectbutton, slider, textarea, togglebutton }

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
const ourButton = {
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
const ourToggle = {
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
    invalidBorderColor: 'var(--stop)',
    color: 'var(--ink)',
    placeholderColor: 'var(--quiet)',
    invalidPlaceholderColor: 'var(--quiet)',
    shadow: 'none',
  },
}

/** Raw: PrimeVue watches its configuration to the bottom, and this has thousands of places that never change. */
export const preset = markRaw(
  definePreset(
    { ...base, components },
    {
      semantic: {
        primary,
        focusRing: { width: '3px', style: 'solid', color: 'var(--accent)', offset: '2px' },
        formField: { paddingX: '0.85rem', paddingY: '0.6rem', borderRadius: 'var(--radius)' },
        colorScheme: { light: scheme, dark: scheme },
      },
      components: {
        button: {
          root: { borderRadius: 'var(--radius)', paddingX: '1rem', paddingY: '0.6rem', label: { fontWeight: '600' } },
          colorScheme: { light: ourButton, dark: ourButton },
        },
        togglebutton: {
          root: { padding: '0.25rem' },
          content: { padding: '0.35rem 0.7rem' },
          colorScheme: { light: ourToggle, dark: ourToggle },
        },
      },
    },
  ),
)
