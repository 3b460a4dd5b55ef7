/** The look, set once: colours of the day and lamp themes, and how Vuetify's parts behave here. */
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const day = {
  dark: false,
  colors: {
    background: '#E7ECE8',
    surface: '#FFFFFF',
    'on-background': '#1E282C',
    'on-surface': '#1E282C',
    primary: '#1B5560',
    secondary: '#47545A',
    error: '#9C2F1A',
    hairline: '#C9D2CC',
    below: '#2F66A8',
    above: '#B3541E',
    wood: '#F4EBD9',
    'wood-edge': '#8A6F45',
    note: '#F0F3F1',
  },
  variables: { 'border-color': '#1E282C', 'high-emphasis-opacity': 1, 'medium-emphasis-opacity': 0.82 },
}

const lamp = {
  dark: true,
  colors: {
    background: '#11171A',
    surface: '#1B2327',
    'on-background': '#EAE6DA',
    'on-surface': '#EAE6DA',
    primary: '#86C7D1',
    'on-primary': '#0E1A1D',
    secondary: '#B7C0BE',
    error: '#F29A86',
    hairline: '#3A464B',
    below: '#93BBEE',
    above: '#F0A06C',
    wood: '#3A3226',
    'wood-edge': '#C6A873',
    note: '#232D31',
  },
  variables: { 'border-color': '#EAE6DA', 'high-emphasis-opacity': 1, 'medium-emphasis-opacity': 0.85 },
}

const field = { variant: 'outlined', density: 'comfortable', color: 'primary', hideDetails: 'auto' } as const

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: { defaultTheme: 'day', themes: { day, lamp } },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'outlined', color: 'primary', rounded: 'sm', minHeight: 44, class: 'button' },
    VCard: { rounded: 'sm', flat: true },
    // Nothing moves when it opens: a key pressed at once reaches what has just opened.
    VDialog: { maxWidth: 620, scrollable: true, transition: false },
    VMenu: { transition: false },
    VTextField: field,
    VTextarea: field,
    VSelect: { ...field, transition: false },
    VCombobox: { ...field, transition: false },
    VCheckbox: { color: 'primary', hideDetails: 'auto' },
    VRadioGroup: { color: 'primary', hideDetails: 'auto' },
  },
})
