import { definePreset } from '@primeuix/themes'
import autocomplete from '@primeuix/themes/aura/autocomplete'
import base from '@primeuix/themes/aura/base'
import button from '@primeuix/themes/aura/button'
import chip from '@primeuix/themes/aura/chip'
import dialog from '@primeuix/themes/aura/dialog'
import drawer from '@primeuix/themes/aura/drawer'
import inputtext from '@primeuix/themes/aura/inputtext'
import select from '@primeuix/themes/aura/select'
import selectbutton from '@primeuix/themes/aura/selectbutton'
import toast from '@primeuix/themes/aura/toast'
import togglebutton from '@primeuix/themes/aura/togglebutton'
import virtualscroller from '@primeuix/themes/aura/virtualscroller'

/** The controls that are used, and no others: the whole of the library's would be half of the first page. */
const used = {
  ...{ autocomplete, button, chip, dialog, drawer, inputtext },
  ...{ select, selectbutton, toast, togglebutton, virtualscroller },
}

/**
 * The library's controls in our own colours: paper, ink and one action colour,
 * taken from the same custom properties as the rest of the page, so that day
 * and night need no second list.
 */
export const Drawing = definePreset(
  { ...base, components: used },
  {
    primitive: {
      borderRadius: { none: '0', xs: '2px', sm: '3px', md: '3px', lg: '3px', xl: '3px' },
    },
    semantic: {
      primary: {
        50: 'var(--tint)',
        100: 'var(--tint)',
        200: 'var(--act)',
        300: 'var(--act)',
        400: 'var(--act)',
        500: 'var(--act)',
        600: 'var(--act)',
        700: 'var(--act-strong)',
        800: 'var(--act-strong)',
        900: 'var(--act-strong)',
        950: 'var(--act-strong)',
      },
      focusRing: { width: '3px', style: 'solid', color: 'var(--act)', offset: '2px', shadow: 'none' },
      formField: { paddingX: '12px', paddingY: '10px', borderRadius: 'var(--radius)' },
      overlay: {
        select: { borderRadius: 'var(--radius)', shadow: '0 0 0 1px var(--ink-2)' },
        popover: { borderRadius: 'var(--radius)', shadow: '0 0 0 1px var(--ink-2)' },
        modal: { borderRadius: 'var(--radius)', padding: '20px', shadow: '0 0 0 1.5px var(--ink)' },
      },
      colorScheme: { light: surfaces(), dark: surfaces() },
    },
    components: {
      autocomplete: { colorScheme: { light: opener(), dark: opener() } },
      togglebutton: {
        root: { padding: '4px', borderRadius: 'var(--radius)' },
        colorScheme: { light: toggle(), dark: toggle() },
      },
      toast: {
        root: { borderWidth: '1.5px', borderRadius: 'var(--radius)' },
        colorScheme: { light: { success: slip(), error: slip() }, dark: { success: slip(), error: slip() } },
      },
    },
  },
)

function surfaces() {
  return {
    primary: {
      color: 'var(--act)',
      contrastColor: 'var(--on-act)',
      hoverColor: 'var(--act-strong)',
      activeColor: 'var(--act-strong)',
    },
    highlight: {
      background: 'var(--tint)',
      focusBackground: 'var(--tint)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
    },
    text: {
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      mutedColor: 'var(--ink-2)',
      hoverMutedColor: 'var(--ink)',
    },
    content: {
      background: 'var(--paper)',
      hoverBackground: 'var(--paper-2)',
      borderColor: 'var(--line)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
    },
    overlay: {
      select: { background: 'var(--paper)', borderColor: 'var(--ink-2)', color: 'var(--ink)' },
      popover: { background: 'var(--paper)', borderColor: 'var(--ink-2)', color: 'var(--ink)' },
      modal: { background: 'var(--paper)', borderColor: 'var(--ink)', color: 'var(--ink)' },
    },
    mask: { background: 'rgb(20 34 42 / 0.45)', color: 'var(--ink)' },
    formField: {
      background: 'var(--sheet)',
      disabledBackground: 'var(--paper-2)',
      filledBackground: 'var(--sheet)',
      borderColor: 'var(--ink-2)',
      hoverBorderColor: 'var(--ink)',
      focusBorderColor: 'var(--act)',
      invalidBorderColor: 'var(--alarm)',
      color: 'var(--ink)',
      disabledColor: 'var(--ink-2)',
      placeholderColor: 'var(--ink-2)',
      iconColor: 'var(--ink-2)',
      shadow: 'none',
    },
    list: {
      option: {
        focusBackground: 'var(--paper-2)',
        selectedBackground: 'var(--tint)',
        selectedFocusBackground: 'var(--tint)',
        color: 'var(--ink)',
        focusColor: 'var(--ink)',
        selectedColor: 'var(--ink)',
        selectedFocusColor: 'var(--ink)',
      },
    },
  }
}

function slip() {
  return {
    background: 'var(--ink)',
    borderColor: 'var(--ink)',
    color: 'var(--paper)',
    detailColor: 'var(--paper)',
    shadow: 'none',
    closeButton: { hoverBackground: 'transparent', focusRing: { color: 'var(--paper)', shadow: 'none' } },
  }
}

function toggle() {
  return {
    root: {
      background: 'var(--sheet)',
      checkedBackground: 'var(--sheet)',
      hoverBackground: 'var(--paper-2)',
      borderColor: 'var(--ink-2)',
      checkedBorderColor: 'var(--ink-2)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      checkedColor: 'var(--on-act)',
    },
    content: { checkedBackground: 'var(--act)', checkedShadow: 'none' },
  }
}

function opener() {
  return {
    dropdown: {
      background: 'var(--sheet)',
      hoverBackground: 'var(--paper-2)',
      activeBackground: 'var(--paper-2)',
      borderColor: 'var(--ink-2)',
      hoverBorderColor: 'var(--ink)',
      activeBorderColor: 'var(--ink)',
      color: 'var(--ink)',
      hoverColor: 'var(--ink)',
      activeColor: 'var(--ink)',
    },
  }
}
