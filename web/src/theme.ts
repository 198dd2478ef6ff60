import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

const light = {
  paper: '#F3F0E8',
  card: '#FCFBF7',
  ink: '#20262A',
  mute: '#626970',
  rule: '#D8D2C3',
  chalk: '#2B5C9E',
  lime: '#C9DB3B',
  'lime-deep': '#7F8F10',
  stop: '#B63118',
  check: '#8F5A00',
  'check-mark': '#C98508',
  fine: '#3F7A45',
  tape: '#F5E27A',
  lumber: '#EBD9B4',
  soil: '#B79B77',
  concrete: '#CFCFCA',
  'stop-wash': '#F8E5DF',
  'check-wash': '#FBF2DC',
  'note-wash': '#EFEDE4',
  header: '#20262A',
  'pipe-edge': '#20262A',
}

const dark: typeof light = {
  paper: '#171B1E',
  card: '#1F2528',
  ink: '#ECE8DC',
  mute: '#9BA3A8',
  rule: '#3A4246',
  chalk: '#8DB7EE',
  lime: '#B4C52F',
  'lime-deep': '#DCEB6A',
  stop: '#F08A74',
  check: '#E9B650',
  'check-mark': '#E0A02A',
  fine: '#7FC087',
  tape: '#CDBB57',
  lumber: '#4E452F',
  soil: '#5B4B36',
  concrete: '#4A4F50',
  'stop-wash': '#43241D',
  'check-wash': '#3D331C',
  'note-wash': '#2A3033',
  header: '#0F1214',
  'pipe-edge': '#D9D6CB',
}

const roles = (c: typeof light) => ({
  ...c,
  background: c.paper,
  surface: c.card,
  primary: c.chalk,
  error: c.stop,
  warning: c['check-mark'],
  success: c.fine,
  'on-background': c.ink,
  'on-surface': c.ink,
})

export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: 'bench',
    themes: {
      bench: { dark: false, colors: roles(light) },
      basement: { dark: true, colors: roles(dark) },
    },
  },
  defaults: {
    VTextField: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VSelect: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VAutocomplete: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VCombobox: { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' },
    VCheckbox: { density: 'compact', hideDetails: true, color: 'primary' },
    VBtn: { rounded: 'sm', elevation: 0 },
    VDialog: { maxWidth: 560 },
    VTooltip: { openDelay: 350 },
  },
})
