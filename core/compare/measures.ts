import { uncertaintyOf } from '../curve/energy';
import type { Figures, ReadRun } from '../curve/figures';
import { efficiencyOf } from '../curve/efficiency';
import { MARKS, type Heat } from '../curve/heat';
import { projection, type Projection, type Sampled } from '../curve/energySample';
import type { Milestone } from '../curve/milestone';
import type { Passage } from '../curve/milestones';
import type { Gain } from '../curve/valueAt';
import { AVERAGED } from '../curve/quoted';
import { plain } from '../curve/working';
import { PASSAGES, writeMilestone, writePassage } from '../curve/timeWords';
import { gainMargin, writeGain } from '../curve/words';
import { shownMargin } from '../margin/bounds';
import type { Measured } from '../margin/told';
import { nominal, spell } from '../quantity/duration';
import { percentWithMargin, price } from '../quantity/figures';
import { upperFirst } from '../quantity/letters';
import { quantityOf, TEMPERATURES, type Quantity } from '../quantity/quantity';
import { roundedAmount, writeAmount, type MeasureUnit } from './amounts';
import { measure, type Cell, type Measure, type Said } from './cells';
import { gainOf, timeOf, whenOf } from './compare';
import { setupsOf, type SetupRuns } from './setups';

/** What gains are given in: of the battery, or hours of use. */
export const GAIN_UNITS = ['%', 'Wh', 'mAh', 'h'] as const;
export type GainUnit = (typeof GAIN_UNITS)[number];

/** Standard uncertainty of a temperature, in °C: no thermometer on the shelf states its accuracy, and ± 1 °C is usual (common practice, no source). */
const THERMOMETER = 0.5;
/** A stage this long or longer is power that is sustained, in seconds. */
const SUSTAINED = 300;

const milestonesOf = ({ milestones, more, beside }: Figures) => [...milestones, ...more.milestones, ...beside.milestones];
const gainsOf = ({ gains, more, beside }: Figures) => [...gains, ...more.gains, ...beside.gains];
const ordered = (values: readonly number[]) => [...new Set(values)].sort((one, other) => one - other);

/** What one percent of a run’s battery is, in a unit; `undefined` where that is not known. */
export function perPercent({ figures: { battery, milliampHours, hours } }: ReadRun, unit: GainUnit): number | undefined {
  const whole = { '%': 100, Wh: battery, mAh: milliampHours, h: hours?.hours }[unit];
  return whole === undefined ? undefined : whole / 100;
}

/** The units in which the gains of runs can be told: those that every one of them knows of its battery. */
export const gainUnitsOf = (all: readonly ReadRun[]): GainUnit[] =>
  GAIN_UNITS.filter((unit) => all.every((one) => perPercent(one, unit) !== undefined));

/** In which gains are told unless another is chosen: in Wh where batteries differ, for a percent of one is not a percent of another. */
export function usualGainUnit(all: readonly ReadRun[]): GainUnit {
  const isUnlike = new Set(all.map(({ figures }) => figures.battery)).size > 1;
  return isUnlike && gainUnitsOf(all).includes('Wh') ? 'Wh' : '%';
}

const amountSays = (value: number, uncertainty: number, unit: MeasureUnit): Said => {
  const told = writeAmount(value, shownMargin(uncertainty), unit);
  return { value: told.value, range: `± ${told.margin}` };
};

function timeTo(level: number): Measure {
  return measure<Milestone>({
    id: `level-${level}`,
    group: 'Times',
    title: `Time to ${level} %`,
    unit: 's',
    better: 'less',
    find: ({ figures }) => milestonesOf(figures).find((found) => found.level === level && found.state !== 'no levels'),
    measured: timeOf,
    says: (found, _, isByLatest) => {
      const { value, range } = writeMilestone(found, isByLatest);
      return { value, range, working: 'working' in found ? found.working : undefined };
    },
  });
}

function when(what: Passage['what']): Measure {
  return measure<Passage>({
    id: what,
    group: 'Times',
    title: PASSAGES[what],
    unit: 's',
    better: 'less',
    find: ({ figures }) => figures.passages.find((passage) => passage.what === what),
    measured: whenOf,
    says: (found, _, isByLatest) => ({ ...writePassage(found, isByLatest), working: found.working }),
  });
}

function gained(seconds: number, unit: GainUnit): Measure {
  const figureUnit = unit === '%' ? 'points' : unit;
  return measure<Gain>({
    id: `gain-${seconds}`,
    group: 'Gains',
    title: `Gained in ${nominal(seconds)}`,
    unit: figureUnit,
    better: 'more',
    find: ({ figures }) => gainsOf(figures).find((gain) => gain.seconds === seconds),
    measured: (gain, one) => {
      const each = perPercent(one, unit);
      const measured = each === undefined ? undefined : gainOf(each)(gain);
      if (!measured || gain.state !== 'known') return undefined;
      const margin = unit === '%' ? gainMargin(gain) : shownMargin(measured.uncertainty);
      // Of a share of the battery it is written in whole percent: that is what is handed on.
      const told = unit === '%' ? Number(percentWithMargin(gain.value, margin).margin) : margin;
      return { ...measured, margin: told, shown: roundedAmount(measured.value, margin, figureUnit) };
    },
    says: (gain, one) => {
      const { value, detail } = writeGain(gain);
      const each = perPercent(one, unit);
      if (gain.state !== 'known' || unit === '%')
        return { value, range: detail, working: gain.state === 'known' ? gain.working : undefined };
      if (each === undefined) return { range: 'what the battery holds is not known' };
      const from = unit === 'h' ? `; ${one.figures.hours?.says ?? ''}` : '';
      const told = amountSays(gain.value * each, gain.uncertainty * each, unit);
      return {
        ...told,
        range: [told.range, value, gain.isAssumed && 'from 0 % assumed', gain.isFull && 'full by then'].filter(Boolean).join(' · '),
        working: { ...gain.working, formula: `${gain.working.formula}, of what the battery holds${from}` },
      };
    },
    // A percent of one device is not a percent of another.
    mayRank: (setups) =>
      unit !== '%' ||
      new Set(setups.flatMap(({ runs }) => runs.map(({ run }) => run.header.device.id))).size === 1 ||
      new Set(setups.flatMap(({ runs }) => runs.map(({ figures }) => figures.battery))).size === 1,
  });
}

/** A figure with a standard uncertainty, or a value alone that is told and not ranked. */
function amount(
  about: Pick<Measure, 'id' | 'group' | 'title' | 'unit' | 'better'>,
  find: (
    one: ReadRun,
  ) => (Omit<Measured, 'uncertainty'> & { uncertainty?: number | undefined; says?: string; working?: string }) | undefined,
): Measure {
  return measure({
    ...about,
    find,
    // What has no margin of its own is told as it is: neither does it vary between repeats.
    measured: (found) =>
      found.uncertainty === undefined
        ? { ...found, uncertainty: 0, scale: 0 }
        : { ...found, uncertainty: found.uncertainty, shown: roundedAmount(found.value, shownMargin(found.uncertainty), about.unit) },
    says: ({ value, uncertainty, says, working }) => {
      const told =
        uncertainty === undefined
          ? { value: about.unit === 'price' ? price(value) : writeAmount(value, 0, about.unit).value, range: '' }
          : amountSays(value, uncertainty, about.unit);
      return {
        value: told.value,
        range: [told.range, says].filter(Boolean).join(' · '),
        working: working === undefined ? undefined : { formula: working, unit: about.unit, uses: [] },
      };
    },
  });
}

const POWER: readonly Measure[] = [
  amount(
    { id: 'peak', group: 'Power and energy', title: 'Peak power', unit: 'W', better: 'more' },
    ({ figures: { peak, accuracy } }) =>
      peak && { value: peak.watts, uncertainty: uncertaintyOf(peak.watts, accuracy), says: peak.kind, working: `the highest ${peak.kind}` },
  ),
  amount(
    { id: 'sustained', group: 'Power and energy', title: 'Sustained power', unit: 'W', better: 'more' },
    ({ figures: { stages, accuracy } }) => {
      const held = stages.filter(({ kind, from, to }) => kind === 'steady' && to - from >= SUSTAINED);
      const top = held.reduce<(typeof held)[number] | undefined>(
        (best, each) => (best && best.watts >= each.watts ? best : each),
        undefined,
      );
      return (
        top && {
          value: top.watts,
          uncertainty: uncertaintyOf(top.watts, accuracy),
          says: `held ${spell(top.to - top.from, 60)}`,
          working: `the highest stage of ${spell(SUSTAINED)} or longer`,
        }
      );
    },
  ),
  ...AVERAGED.map((level) =>
    amount(
      { id: `average-${level}`, group: 'Power and energy', title: `Average to ${level} %`, unit: 'W', better: 'more' },
      ({ figures }) => {
        const found = figures.averages.find((each) => each.level === level);
        return found && { value: found.watts, uncertainty: found.uncertainty, working: `energy until ${level} % was shown ÷ time` };
      },
    ),
  ),
  amount({ id: 'energy', group: 'Power and energy', title: 'Energy in', unit: 'Wh', better: undefined }, ({ figures: { energy } }) =>
    energy.covered > 0
      ? {
          value: energy.wattHours,
          uncertainty: energy.uncertainty,
          ...(energy.unseen.length > 0 && { says: 'at least' }),
          working: 'area under the watts that were read',
        }
      : undefined,
  ),
  amount({ id: 'efficiency', group: 'Power and energy', title: 'Efficiency', unit: 'share', better: 'more' }, ({ figures }) => {
    const found = efficiencyOf(figures);
    return (
      found && {
        value: found.share,
        uncertainty: found.uncertainty,
        says: `${found.from} to ${found.to} %`,
        working: 'energy stored by its level ÷ energy in',
      }
    );
  }),
];

/** Between which levels energy samples are carried on, in %: the same for all, whatever level each began at. */
export interface CarriedOn {
  from: number;
  to: number;
}

const sampledBetween = ({ from, to }: CarriedOn): Measure[] => [
  amount(
    { id: 'sampled', group: 'Power and energy', title: 'By energy sample', unit: 'W', better: 'more' },
    ({ figures: { sampled } }) =>
      sampled && { value: sampled.watts, uncertainty: sampled.uncertainty, working: 'what the counter counted ÷ time' },
  ),
  measure<Projection & { sampled: Sampled }>({
    id: 'projected',
    group: 'Times',
    title: `${from} to ${to} % by energy sample`,
    unit: 's',
    better: 'less',
    find: ({ figures: { sampled } }) => {
      const found = sampled && projection({ ...sampled, start: from }, to);
      return found && { ...found, sampled };
    },
    measured: ({ seconds, uncertainty, sampled }) => ({
      value: seconds,
      uncertainty: (seconds * sampled.uncertainty) / sampled.watts,
      shown: roundedAmount(seconds, shownMargin(uncertainty), 's'),
    }),
    says: ({ seconds, uncertainty, sampled }) => {
      const told = amountSays(seconds, uncertainty, 's');
      return {
        value: told.value,
        range: `${told.range ?? ''} · no loss, no taper`,
        working: {
          formula: `${plain(sampled.battery ?? 0)} Wh × ${plain(to - from)} % ÷ ${plain(sampled.watts)} W`,
          unit: 'Wh',
          uses: sampled.uses,
        },
      };
    },
  }),
];

const PRICE = amount({ id: 'price', group: 'Price', title: 'Price of the charger', unit: 'price', better: undefined }, ({ run }) =>
  run.header.charger.price === undefined ? undefined : { value: run.header.charger.price },
);

const heatIn = ({ figures }: ReadRun, of: Quantity) => figures.heat.find((heat) => heat.of === of);

function heatOf(of: Quantity, name: string): Measure[] {
  const about = (id: string, title: string, unit: MeasureUnit, better?: 'less') =>
    ({ id: `${id}-${of}`, group: 'Heat', title: `${name}: ${title}`, unit, better }) as const;
  const degrees = (heat: Heat, celsius: number): Measured & { working: string } => ({
    value: celsius,
    uncertainty: THERMOMETER,
    scale: Math.max(0, celsius - heat.first.value),
    working: `of ${heat.read} readings; the thermometer ± 1 °C, assumed`,
  });
  return [
    amount(about('hottest', 'hottest', '°C', 'less'), (one) => {
      const heat = heatIn(one, of);
      return heat && degrees(heat, heat.top.value);
    }),
    amount(about('rise', 'rise', 'K', 'less'), (one) => {
      const heat = heatIn(one, of);
      return heat && heat.read > 1
        ? { value: heat.top.value - heat.first.value, uncertainty: THERMOMETER, working: 'the hottest less the first' }
        : undefined;
    }),
    ...MARKS.map((seconds) =>
      amount(about(`at-${seconds}`, `at ${nominal(seconds)}`, '°C', 'less'), (one) => {
        const heat = heatIn(one, of);
        const mark = heat?.marks.find((each) => each.seconds === seconds);
        return heat && mark && degrees(heat, mark.celsius);
      }),
    ),
    amount(about('above', 'time above its limit', 's'), (one) => {
      const heat = heatIn(one, of);
      return heat && heat.read > 1 ? { value: heat.tooHot?.seconds ?? 0, working: 'on the line between readings' } : undefined;
    }),
    amount(about('back', 'back at its start', 's'), (one) => {
      const heat = heatIn(one, of);
      return heat?.backAt === undefined
        ? undefined
        : { value: heat.backAt, working: 'first seen within 1 °C of the first, after its peak' };
    }),
  ];
}

/** What a surface is called over several devices: its own name where they agree. */
function surfaceOf(all: readonly ReadRun[], of: Quantity): string {
  const names = new Set(all.flatMap((one) => heatIn(one, of)?.name ?? []));
  const { track, place } = quantityOf(of);
  const usual = (place === 'bat' ? 'battery' : (place ?? track?.short)) ?? of;
  const name = names.size === 1 ? ([...names][0] ?? usual) : usual;
  return upperFirst(name);
}

/** Every figure by which runs could be compared, in the order in which they are read. */
function everyMeasure(all: readonly ReadRun[], unit: GainUnit, carriedOn: CarriedOn): Measure[] {
  const levels = ordered(all.flatMap(({ figures }) => milestonesOf(figures).map(({ level }) => level)));
  const marks = ordered(all.flatMap(({ figures }) => gainsOf(figures).map(({ seconds }) => seconds)));
  return [
    ...marks.map((seconds) => gained(seconds, unit)),
    ...levels.map(timeTo),
    ...(Object.keys(PASSAGES) as Passage['what'][]).map(when),
    ...POWER,
    ...sampledBetween(carriedOn),
    ...TEMPERATURES.flatMap((of) => heatOf(of, surfaceOf(all, of))),
    PRICE,
  ];
}

/** From empty to half, where nobody asks for other levels. */
const HALF: CarriedOn = { from: 0, to: 50 };

/** A figure, and a cell of it for each setup. */
export interface MeasureColumn {
  measure: Measure;
  cells: readonly Cell[];
}

/**
 * The figures of setups beside each other: those that any setup has.
 *
 * @param unit what gains are given in
 */
export function columnsOf(setups: readonly SetupRuns[], unit: GainUnit, carriedOn: CarriedOn = HALF): MeasureColumn[] {
  return everyMeasure(
    setups.flatMap(({ runs }) => runs),
    unit,
    carriedOn,
  )
    .map((each) => ({ measure: each, cells: each.compare(setups) }))
    .filter(isKnown);
}

/** Whether any setup has the figure. */
const isKnown = ({ cells }: MeasureColumn) => cells.some(({ mean }) => mean && !mean.isLeast);

/**
 * The figures of some of these setups as they stand among all of them, ranked among themselves alone: those that any of them has.
 *
 * @param some which of the setups
 */
export const columnsAmong = (columns: readonly MeasureColumn[], setups: readonly SetupRuns[], some: readonly number[]): MeasureColumn[] =>
  columns
    .map(({ measure: each, cells }) => ({
      measure: each,
      cells: each.ranked(
        some.flatMap((index) => setups[index] ?? []),
        some.flatMap((index) => cells[index] ?? []),
      ),
    }))
    .filter(isKnown);

/** The same figures without their cells. */
export const measuresOf = (all: readonly ReadRun[], unit: GainUnit): Measure[] =>
  columnsOf(setupsOf(all), unit).map(({ measure: each }) => each);

/** Those that a table begins with, by what the method of the runs is about. */
export type About = 'gains' | 'times' | 'power' | 'work';

const SHOWN_AT_FIRST: Readonly<Record<About, (id: string) => boolean>> = {
  gains: (id) => id.startsWith('gain-') || id === 'peak' || id === 'price',
  times: (id) => /^(gain-(900|1800)|level-(80|100)|light out|power gone|peak|hottest-.*|price)$/.test(id),
  power: (id) => /^(sampled|projected|peak|average-.*|level-(50|80|100)|energy|price)$/.test(id),
  work: (id) => /^(peak|sustained|energy|price)$/.test(id),
};

/**
 * The columns that a table begins with; all where that would be none.
 *
 * @param yardstick what setups are set against each other by, a level or the id of a figure: it is among them
 */
export function usualMeasures(measures: readonly Pick<Measure, 'id'>[], about: About, yardstick: string): string[] {
  const found = measures.map(({ id }) => id).filter((id) => SHOWN_AT_FIRST[about](id) || id === yardstick || id === `level-${yardstick}`);
  return found.length > 0 ? found : measures.map(({ id }) => id);
}

/** What runs are about, by the method that they were taken by. */
export function aboutOf(all: readonly ReadRun[]): About {
  const rules = all.map(({ run }) => run.header.rule);
  if (rules.length > 0 && rules.every((rule) => rule?.from === 'workload')) return 'work';
  if (all.some(({ figures }) => figures.sampled)) return 'power';
  return rules.length > 0 && rules.every((rule) => rule?.ends === 'window') ? 'gains' : 'times';
}
