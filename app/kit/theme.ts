import { markRaw } from 'vue';
import { createVuetify, type ThemeDefinition } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { en } from 'vuetify/locale';

/** Every colour of the program, by what it is for. `desk` lies under the `paper`; `bar` is the due line. */
const PAPER = {
  desk: '#ECE5D6',
  paper: '#FCF9F1',
  grid: '#E9E0CD',
  rule: '#D3C6A9',
  ink: '#1B2330',
  soft: '#5A6069',
  pencil: '#6A675F',
  due: '#B4410E',
  line: '#C9BDA2',
  /** The line under a field, and around what can be pressed: three to one on the paper. */
  field: '#8E866F',
  bar: '#1B2330',
  barField: '#2A3442',
  barText: '#FCF9F1',
  barSoft: '#B9BDC4',
  barDue: '#FFB38A',
};
export type Palette = typeof PAPER;

const DARK_ROOM: Palette = {
  desk: '#0F1216',
  paper: '#171B21',
  grid: '#222933',
  rule: '#333C48',
  ink: '#EDE6D6',
  soft: '#A9A698',
  pencil: '#9C988C',
  due: '#FFA26B',
  line: '#323A45',
  field: '#6C7785',
  bar: '#232A33',
  barField: '#323A45',
  barText: '#EDE6D6',
  barSoft: '#A9A698',
  barDue: '#FFA26B',
};

export const PALETTES: Readonly<Record<ThemeName, Palette>> = { paper: PAPER, darkRoom: DARK_ROOM };
export type ThemeName = 'paper' | 'darkRoom';

function definition(palette: Palette, dark: boolean): ThemeDefinition {
  return {
    dark,
    colors: {
      ...palette,
      background: palette.desk,
      surface: palette.paper,
      'on-surface': palette.ink,
      'on-background': palette.ink,
      primary: palette.ink,
      'on-primary': palette.paper,
      error: palette.due,
      'on-error': palette.paper,
    },
    variables: { 'medium-emphasis-opacity': 0.8, 'disabled-opacity': 0.6, 'border-color': palette.line, 'border-opacity': 1 },
  };
}

/** A field: its name above, its figure on a ruled line (frame/kit.css). */
const FIELD = { variant: 'underlined', density: 'comfortable', persistentPlaceholder: true } as const;

/** Marks of the pen: a box and its tick, a ring and its dot, a nib that points down. */
const MARKS = {
  checkboxOff: 'svg:M4 4h16v16H4V4m1.5 1.5v13h13v-13h-13Z',
  checkboxOn: 'svg:M4 4h16v16H4V4m1.5 1.5v13h13v-13h-13ZM7 12.2l1.2-1.1 2.6 2.7 5.4-6.9 1.3 1-6.6 8.4L7 12.2Z',
  radioOff: 'svg:M12 3.5a8.5 8.5 0 1 1 0 17 8.5 8.5 0 0 1 0-17m0 1.4a7.1 7.1 0 1 0 0 14.2 7.1 7.1 0 0 0 0-14.2Z',
  radioOn:
    'svg:M12 3.5a8.5 8.5 0 1 1 0 17 8.5 8.5 0 0 1 0-17m0 1.4a7.1 7.1 0 1 0 0 14.2 7.1 7.1 0 0 0 0-14.2M12 8a4 4 0 1 1 0 8 4 4 0 0 1 0-8Z',
  dropdown: 'svg:M8 10.2h8l-4 5.2-4-5.2Z',
};

/** Vuetify under our own theme. The nonce lets its theme style pass a strict content security policy. */
export function createTheme(cspNonce: string) {
  return createVuetify({
    theme: {
      defaultTheme: 'paper',
      cspNonce,
      themes: { paper: definition(PAPER, false), darkRoom: definition(DARK_ROOM, true) },
    },
    // Its words never change: watched, all of them would be walked through at every start.
    locale: { messages: { en: markRaw(en) } },
    icons: { defaultSet: 'mdi', aliases: { ...aliases, ...MARKS }, sets: { mdi } },
    defaults: {
      global: { ripple: false },
      VTextField: { ...FIELD, hideDetails: 'auto' },
      VSelect: { ...FIELD, hideDetails: 'auto' },
      VAutocomplete: { ...FIELD, hideDetails: 'auto' },
      VCombobox: { ...FIELD, hideDetails: 'auto' },
      VTextarea: { ...FIELD, hideDetails: 'auto' },
      VFileInput: { ...FIELD, hideDetails: true, prependIcon: '' },
      VBtn: { variant: 'outlined', elevation: 0 },
      VCard: { elevation: 0, border: true },
      VCheckbox: { density: 'comfortable', hideDetails: true },
      // It would take the cursor a frame after the sheet is there, out of the field that a quick hand is in by then.
      VDialog: { captureFocus: false },
    },
  });
}
