import { definePreset } from '@primeuix/themes'
import base from '@primeuix/themes/aura/base'
import css from '@primeuix/themes/aura/css'
import badge from '@primeuix/themes/aura/badge'
import button from '@primeuix/themes/aura/button'
import checkbox from '@primeuix/themes/aura/checkbox'
import chip from '@primeuix/themes/aura/chip'
import dialog from '@primeuix/themes/aura/dialog'
import iconfield from '@primeuix/themes/aura/iconfield'
import inputnumber from '@primeuix/themes/aura/inputnumber'
import inputtext from '@primeuix/themes/aura/inputtext'
import menu from '@primeuix/themes/aura/menu'
import multiselect from '@primeuix/themes/aura/multiselect'
import popover from '@primeuix/themes/aura/popover'
import ripple from '@primeuix/themes/aura/ripple'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import slider from '@primeuix/themes/aura/slider'
import textarea from '@primeuix/themes/aura/textarea'
import toast from '@primeuix/themes/aura/toast'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import toggleswitch from '@primeuix/themes/aura/toggleswitch'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'

/** The parts of components that are in use, and of what they are made of: the whole would be three times as much. */
export const components = {
  badge,
  button,
  checkbox,
  chip,
  dialog,
  iconfield,
  inputnumber,
  inputtext,
  menu,
  multiselect,
  popover,
  ripple,
  select,
  selectbutton,
  slider,
  textarea,
  toast,
  togglebutton,
  toggleswitch,
  virtualscroller,
}

/* Components take their colours from our tokens, so that both themes are told once. */
const paper = {
  0: 'var(--raised)',
  50: 'var(--paper)',
  100: 'var(--paper)',
  200: 'var(--rule)',
  300: 'var(--rule)',
  400: 'var(--ghost)',
  500: 'var(--soft)',
  600: 'var(--soft)',
  700: 'var(--ink)',
  800: 'var(--ink)',
  900: 'var(--ink)',
  950: 'var(--ink)',
}

const scheme = {
  surface: paper,
  primary: { color: 'var(--ink)', contrastColor: 'var(--paper)', hoverColor: 'var(--ink)', activeColor: 'var(--ink)' },
  highlight: {
    background: 'var(--lit)',
    focusBackground: 'var(--lit)',
    color: 'var(--ink)',
    focusColor: 'var(--ink)',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--soft)', hoverMutedColor: 'var(--soft)' },
  content: {
    background: 'var(--raised)',
    hoverBackground: 'var(--lit)',
    borderColor: 'var(--rule)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  formField: {
    background: 'var(--raised)',
    disabledBackground: 'var(--paper)',
    disabledColor: 'var(--soft)',
    borderColor: 'var(--ghost)',
    hoverBorderColor: 'var(--soft)',
    focusBorderColor: 'var(--ink)',
    invalidBorderColor: 'var(--danger)',
    color: 'var(--ink)',
    placeholderColor: 'var(--soft)',
    iconColor: 'var(--soft)',
    shadow: 'none',
  },
  overlay: {
    select: { background: 'var(--raised)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    popover: { background: 'var(--raised)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    modal: { background: 'var(--raised)', borderColor: 'var(--rule)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--lit)',
      selectedBackground: 'var(--ink)',
      selectedFocusBackground: 'var(--ink)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--paper)',
      selectedFocusColor: 'var(--paper)',
    },
  },
}

export const preset = definePreset(
  { ...base, components, css: css as unknown as string },
  {
    semantic: {
      focusRing: { width: '3px', style: 'solid', color: 'var(--lit-rule)', offset: '2px', shadow: 'none' },
      formField: { paddingX: '0.75rem', paddingY: '0.55rem', borderRadius: 'var(--round)' },
      colorScheme: { light: scheme, dark: scheme },
    },
    components: {
      togglebutton: {
        root: { borderRadius: 'var(--round)', padding: '0.2rem' },
        content: { padding: '0.35rem 0.7rem', checkedShadow: 'none' },
        colorScheme: { light: toggles(), dark: toggles() },
      },
      button: {
        root: { borderRadius: 'var(--round)', paddingY: '0.5rem' },
        colorScheme: {
          light: buttons(),
          dark: buttons(),
        },
      },
    },
  },
)

function buttons() {
  return {
    outlined: {
      primary: { hoverBackground: 'var(--lit)', activeBackground: 'var(--lit)', borderColor: 'var(--ghost)' },
    },
    text: { primary: { hoverBackground: 'var(--lit)', activeBackground: 'var(--lit)' } },
  }
}

function toggles() {
  return {
    root: {
      background: 'var(--raised)',
      checkedBackground: 'var(--raised)',
      hoverBackground: 'var(--raised)',
      borderColor: 'var(--ghost)',
      checkedBorderColor: 'var(--ghost)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      checkedColor: 'var(--paper)',
    },
    content: { checkedBackground: 'var(--ink)' },
  }
}
