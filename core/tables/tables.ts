import { factsOf } from '../bench/facts';
import { SHELVES } from '../bench/shelf';
import { QUANTITIES, quantityOf } from '../quantity/quantity';
import { figureColumn, momentColumn, needed, textColumn, wholeColumn, yesColumn, type Field, type Table } from './table';

/** `milliampHours` as a column is called: `milliamp_hours`. */
export const columnName = (key: string): string => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** Every fact of every shelf, once. A fact that several shelves know means the same on each. */
const facts: Record<string, Field> = {};
for (const fact of SHELVES.flatMap((shelf) => factsOf(shelf))) {
  const name = columnName(fact.key);
  const says = `${fact.name}${fact.of ? `, the id of a ${fact.of}` : ''}.`;
  facts[name] ??= fact.type === 'figure' ? figureColumn(says, fact.unit) : fact.type === 'yes' ? yesColumn(says) : textColumn(says);
}

const ENTRY = wholeColumn('Place of the entry in the ink of its run, from 1.');
const SECONDS = figureColumn('When, counted from plug-in.', 's');
const AT = momentColumn('When, by the wall clock.');
const RUN = needed(textColumn('The run.'));
const toMethod = { columns: ['method'], to: 'methods' };
const toRun = { columns: ['run'], to: 'runs' };

const GEAR = {
  name: 'gear',
  title: 'Gear',
  says: 'Devices, chargers, cables and meters: those of the bench, and those that runs were made with and that left it.',
  fields: {
    id: needed(textColumn('Id of the piece.')),
    shelf: needed(textColumn('device, charger, cable or meter.')),
    name: needed(textColumn('What it is called.')),
    ...facts,
    retired: yesColumn('Whether it is no longer offered for new runs.'),
  },
  key: ['id'],
} as const satisfies Table;

const SETUPS = {
  name: 'setups',
  title: 'Setups',
  says: 'What a run tests: device, charger with its port, cable and settings. Runs of one setup repeat each other.',
  fields: {
    id: needed(textColumn('Id of the setup: the same in every file, made of all that it consists of.')),
    name: needed(textColumn('What it charges from, in words.')),
    device: needed(textColumn('The device.')),
    charger: needed(textColumn('The charger.')),
    port: wholeColumn('Which port of the charger, from 1.'),
    cable: textColumn('The cable, where it was noted.'),
    fed_by: textColumn('What feeds the charger, where it has a source of its own.'),
    cell: textColumn('The cell of its study that it fills.'),
    settings: textColumn('Settings that its runs were confirmed to have.'),
    work: textColumn('Work that was done on the device meanwhile.'),
  },
  key: ['id'],
  refers: ['device', 'charger', 'cable', 'fed_by'].map((column) => ({ columns: [column], to: 'gear' })),
} as const satisfies Table;

const METHODS = {
  name: 'methods',
  title: 'Methods',
  says: 'How runs are taken: the ways of the trade that were used, and those of one’s own.',
  fields: {
    id: needed(textColumn('Id of the method.')),
    name: needed(textColumn('What it is called.')),
    start: textColumn('How a run starts.'),
    start_level: figureColumn('The level at the start, where it is one.', '%'),
    cadence: textColumn('When readings fall due.'),
    records: textColumn('What is written down at each check.'),
    stops: textColumn('When a run stops.'),
    conditions: textColumn('Settings that must match, where the method says so.'),
  },
  key: ['id'],
} as const satisfies Table;

const STUDIES = {
  name: 'studies',
  title: 'Studies',
  says: 'Questions, and how their runs are taken.',
  fields: {
    id: needed(textColumn('Id of the study.')),
    name: needed(textColumn('What it is called.')),
    question: textColumn('What it is to answer.'),
    method: textColumn('The method its runs are taken by.'),
    cadence: textColumn('When readings fall due.'),
    start_level: figureColumn('The level at which every run starts.', '%'),
    repeats: wholeColumn('How often each setup is run.'),
    conditions: textColumn('The settings that must match.'),
  },
  key: ['id'],
  refers: [toMethod],
} as const satisfies Table;

const RUNS = {
  name: 'runs',
  title: 'Runs',
  says: 'Charges, each from plug-in to stop.',
  fields: {
    id: needed(textColumn('Id of the run.')),
    setup: needed(textColumn('The setup that it tests.')),
    device: needed(textColumn('The device.')),
    unit: wholeColumn('Which of several identical units of the device, from 1.'),
    charger: needed(textColumn('What it charged from at plug-in.')),
    meter: textColumn('The meter in the line, if there was one.'),
    study: textColumn('The study it belongs to.'),
    plugged_in: needed(momentColumn('When it was plugged in.')),
    length: figureColumn('From plug-in to the stop, or to the last thing seen.', 's'),
    ended: textColumn('How it ended; nothing of a run that is live.'),
    ended_remark: textColumn('What was said of its end.'),
    start_level: figureColumn('The level at plug-in, if it was seen.', '%'),
    top_level: figureColumn('The highest level that was displayed.', '%'),
    method: textColumn('The method it was taken by.'),
    cadence: textColumn('When readings fell due.'),
    readings: wholeColumn('How many readings stand.'),
    samples: wholeColumn('How many values a meter gave.'),
    tags: textColumn('Its tags.'),
    note: textColumn('The note on all of it.'),
    owner: textColumn('Whose logbook it came from; nothing of one’s own.'),
    source: textColumn('The file it came from.'),
    discarded: momentColumn('When it was discarded; nothing of a run that stands.'),
  },
  key: ['id'],
  refers: [
    { columns: ['setup'], to: 'setups' },
    ...['device', 'charger', 'meter'].map((column) => ({ columns: [column], to: 'gear' })),
    { columns: ['study'], to: 'studies' },
    toMethod,
  ],
} as const satisfies Table;

const CONDITIONS = {
  name: 'conditions',
  title: 'Conditions',
  says: 'Settings of the runs, as confirmed at their start or corrected since.',
  fields: {
    run: RUN,
    place: needed(wholeColumn('Its place in the list, from 1.')),
    name: needed(textColumn('What was set.')),
    value: textColumn('How.'),
  },
  key: ['run', 'place'],
  refers: [toRun],
} as const satisfies Table;

const READINGS = {
  name: 'readings',
  title: 'Readings',
  says: 'What a person read, a row a value. Those that were struck stand here too, and count for nothing.',
  fields: {
    run: RUN,
    entry: needed(ENTRY),
    quantity: needed(textColumn(`What was read: ${QUANTITIES.join(', ')}.`)),
    value: needed(figureColumn('The value, in the unit beside it.')),
    unit: needed(textColumn('Its unit.')),
    seconds: needed(SECONDS),
    clock_time: needed(AT),
    turning: yesColumn('Whether the display was seen turning to this level.'),
    direction: textColumn('Which way current flowed at the cable, where that was noted: in or out.'),
    note: textColumn('What was written beside it.'),
    struck: needed(yesColumn('Whether it was struck.')),
    reason: textColumn('Why it was struck.'),
  },
  key: ['run', 'entry', 'quantity'],
  refers: [toRun],
} as const satisfies Table;

const SAMPLES = {
  name: 'samples',
  title: 'Samples',
  says: 'What meters streamed, a row a value.',
  fields: {
    run: RUN,
    quantity: needed(textColumn(`What was sampled: ${QUANTITIES.join(', ')}.`)),
    unit: needed(textColumn('Its unit.')),
    seconds: needed(SECONDS),
    value: needed(figureColumn('The value, in the unit beside it.')),
  },
  key: ['run', 'quantity', 'seconds'],
  refers: [toRun],
} as const satisfies Table;

const EVENTS = {
  name: 'events',
  title: 'Events',
  says: 'What happened beside readings: events, notes and the stop. Those that were struck stand here too.',
  fields: {
    run: RUN,
    entry: needed(ENTRY),
    kind: needed(textColumn('event, note or stop.')),
    event: textColumn('What happened, by its id.'),
    says: needed(textColumn('The same in words.')),
    seconds: needed(SECONDS),
    clock_time: needed(AT),
    until: momentColumn('Of a time that was not watched: when the program was back.'),
    shift: figureColumn('Of a clock that was changed: by how much, ahead above zero.', 's'),
    struck: needed(yesColumn('Whether it was struck.')),
    reason: textColumn('Why it was struck.'),
  },
  key: ['run', 'entry'],
  refers: [toRun],
} as const satisfies Table;

const TRIALS = {
  name: 'trials',
  title: 'Trials',
  says: 'Chargers tried one after another in a spot check, and what was seen of each.',
  fields: {
    run: RUN,
    entry: needed(ENTRY),
    charger: needed(textColumn('What was tried.')),
    port: wholeColumn('Which port of it, from 1.'),
    cable: textColumn('Through which cable.'),
    fed_by: textColumn('What fed it.'),
    held: figureColumn('The only voltage it was let give.', 'V'),
    seconds: needed(SECONDS),
    state: needed(textColumn('What the device was doing.')),
    status: needed(textColumn('What the device made of it.')),
    ...Object.fromEntries(
      QUANTITIES.map((quantity) => [
        columnName(quantity),
        figureColumn(`The ${quantityOf(quantity).named} read.`, quantityOf(quantity).unit),
      ]),
    ),
    volts_before: figureColumn('Volts before the handshake.', 'V'),
    watts_out: figureColumn('What a pad gave out.', 'W'),
    watts_out_assumed: yesColumn('Whether that was taken for granted.'),
    chime: yesColumn('Whether it chimed.'),
    chimes: wholeColumn('How often it chimed.'),
    icon: yesColumn('Whether the charge icon showed.'),
    meter: yesColumn('Whether the meter showed current.'),
    remark: textColumn('What was written beside it.'),
    confirms: wholeColumn('The entry that this is a second look at.'),
  },
  key: ['run', 'entry'],
  refers: [toRun, ...['charger', 'cable', 'fed_by'].map((column) => ({ columns: [column], to: 'gear' }))],
} as const satisfies Table;

const FIGURES = {
  name: 'figures',
  title: 'Figures',
  says: 'All that was worked out of each run, with what it lies between.',
  fields: {
    run: RUN,
    figure: needed(textColumn('Id of the figure, such as level-80 or gain-900.')),
    name: needed(textColumn('What it is called.')),
    value: figureColumn('The figure as it is told; nothing where it was not seen.'),
    lower: figureColumn('It lies above this.'),
    upper: figureColumn('It lies below this.'),
    unit: textColumn('Unit of these three.'),
    told: textColumn('The figure in words, as it is shown.'),
    how: textColumn('How it was worked out.'),
  },
  key: ['run', 'figure'],
  refers: [toRun],
} as const satisfies Table;

const COMPARISONS = {
  name: 'comparisons',
  title: 'Comparisons',
  says: 'Runs that were compared and saved by a name.',
  fields: {
    id: needed(textColumn('Id of the comparison.')),
    name: needed(textColumn('What it is called.')),
    saved: needed(momentColumn('When it was last saved.')),
    baseline: textColumn('A run of the setup that others are set against.'),
    set_against: textColumn('By which level or figure.'),
  },
  key: ['id'],
  refers: [{ columns: ['baseline'], to: 'runs' }],
} as const satisfies Table;

const COMPARED = {
  name: 'compared',
  title: 'Compared runs',
  says: 'Which runs each comparison is of.',
  fields: { comparison: needed(textColumn('The comparison.')), run: RUN },
  key: ['comparison', 'run'],
  refers: [{ columns: ['comparison'], to: 'comparisons' }, toRun],
} as const satisfies Table;

const SENTENCES = {
  name: 'sentences',
  title: 'Sentences',
  says: 'The verdict of each comparison, a sentence for each need of a reader.',
  fields: {
    comparison: needed(textColumn('The comparison.')),
    need: needed(textColumn('What a reader needs, by its id; headline is the answer in short.')),
    text: needed(textColumn('The sentence as it is published.')),
    worked: textColumn('The sentence as it was worked out, where a person wrote another.'),
  },
  key: ['comparison', 'need'],
  refers: [{ columns: ['comparison'], to: 'comparisons' }],
} as const satisfies Table;

/** Every table, each before those that refer to it. */
export const TABLES = {
  gear: GEAR,
  setups: SETUPS,
  methods: METHODS,
  studies: STUDIES,
  runs: RUNS,
  conditions: CONDITIONS,
  readings: READINGS,
  samples: SAMPLES,
  events: EVENTS,
  trials: TRIALS,
  figures: FIGURES,
  comparisons: COMPARISONS,
  compared: COMPARED,
  sentences: SENTENCES,
} as const;
export type TableName = keyof typeof TABLES;
