import { sum } from 'd3-array';
import { nominal, spell } from '../quantity/duration';
import { fixed, inPoints, percentWithMargin, withMargin } from '../quantity/figures';
import type { RunInk } from '../ink/fold';
import { shownMargin } from '../margin/bounds';
import { listed } from '../quantity/listed';
import { counted, FROM_PLUG_IN, type Counting } from './counted';
import { uncertaintyOf, type Accuracy, type Energy } from './energy';
import { projection, type Sampled } from './energySample';
import type { Counter, Figures } from './figures';
import { heatFigure } from './heatWords';
import type { Milestone } from './milestone';
import { PASSAGES, writeMilestone, writePassage } from './timeWords';
import type { Passage } from './milestones';
import { moreOfEnergy, stageFigures } from './stageWords';
import type { Gain } from './valueAt';
import { onSource, type WrittenFigure } from './written';
import { plain } from './working';

/** To which level energy samples are carried on, in %, unless one was asked for. */
export const PROJECT_TO = 50;

/** How figures are written beside what they are. */
export interface Writing {
  /** Level to which energy samples are carried on, in %. */
  projectTo?: number | undefined;
  /** From when times are counted, and by which time. */
  counting?: Counting | undefined;
  /** The run: its time without power. */
  run?: Pick<RunInk, 'unplugged'> | undefined;
}

/** Every figure of a run in words, in the order they are read. */
export function writeFigures(
  figures: Figures,
  { projectTo = PROJECT_TO, counting = FROM_PLUG_IN, run = { unplugged: [] } }: Writing = {},
): WrittenFigure[] {
  const milestones = [...figures.milestones, ...figures.more.milestones].sort((one, other) => one.level - other.level);
  const gains = [...figures.gains, ...figures.more.gains].sort((one, other) => one.seconds - other.seconds);
  // A device that shows no level has none to be late with: what came to pass stands in their place.
  const hasLevels = figures.passages.length === 0 || figures.milestones.some(({ state }) => state !== 'no levels');
  return [
    ...(hasLevels ? milestones.map((found) => milestoneFigure(found, counted(found, counting, figures, run))) : []),
    ...figures.passages.map((each) => passageFigure(each)),
    ...(figures.trueFull ? [passageFigure(figures.trueFull, 'True full')] : []),
    ...(hasLevels ? gains.map((gain) => gainFigure(gain, figures)) : []),
    peakFigure(figures),
    ...energyFigures(figures),
    ...moreOfEnergy(figures),
    ...counterFigure(figures.counter),
    ...sampledFigures(figures.sampled, projectTo, figures.feeds),
    ...stageFigures(figures),
    ...figures.heat.map(heatFigure),
    ...feltFigure(figures.felt),
  ];
}

/** @param told the same as it is counted */
function milestoneFigure(found: Milestone, told: Milestone): WrittenFigure {
  const { level } = found;
  const figure = { id: `level-${level}`, group: 'When it reached', label: level === 100 ? '100 % shown' : `${level} %` } as const;
  const working = 'working' in told ? told.working : undefined;
  const span = found.state === 'reached' ? { from: found.bounds.low, to: found.bounds.high } : undefined;
  const { value, detail } = writeMilestone(told);
  return { ...figure, value, detail, working, span };
}

/** Something that came to pass, with its bounds, like a level. */
function passageFigure(passage: Passage, label = PASSAGES[passage.what]): WrittenFigure {
  const { what, bounds, working } = passage;
  const { value, detail } = writePassage(passage);
  return {
    id: what.replace(' ', '-'),
    group: 'When it reached',
    label,
    value,
    detail: what === 'boot' ? `after a dead start; ${detail}` : `first seen; ${detail}`,
    working,
    span: { from: bounds.low, to: bounds.high },
  };
}

/** A gain in words, rounded to what its margin supports: `27 %`, `± 2 %`. */
export function writeGain(gain: Gain): { value?: string; detail: string } {
  if (gain.state !== 'known') {
    return {
      detail: gain.state === 'start unknown' ? 'the level at plug-in is not known' : `no reading at or after ${nominal(gain.seconds)}`,
    };
  }
  const { value, margin } = percentWithMargin(gain.value, gainMargin(gain));
  return {
    value: inPoints(value),
    detail: `± ${margin}${gain.isAssumed ? ', from 0 % assumed' : ''}${gain.isFull ? ', full by then' : ''}`,
  };
}

type Known = Extract<Gain, { state: 'known' }>;

/** What is shown behind a gain, in %: what is displayed is off by less than a percent either way. */
export const gainMargin = ({ uncertainty, bounds }: Known) => shownMargin(uncertainty, { low: bounds.low - 1, high: bounds.high + 1 });

function gainFigure(gain: Gain, { battery, milliampHours, hours: lasts }: Figures): WrittenFigure {
  const figure = { id: `gain-${gain.seconds}`, group: 'What it gained', label: `Gained in ${nominal(gain.seconds)}` } as const;
  if (gain.state !== 'known') return { ...figure, ...writeGain(gain) };
  const written = writeGain(gain);
  const stored = battery === undefined ? '' : ` · ${fixed((battery * gain.value) / 100, 1)} Wh of the battery`;
  const charge = milliampHours === undefined ? '' : ` · ${fixed((milliampHours * gain.value) / 100)} mAh`;
  const hours = lasts && `${fixed((lasts.hours * gain.value) / 100, 1)} h of use`;
  const used = lasts && hours ? `; ${lasts.says} × ${plain(gain.value)} % = ${hours}` : '';
  const { low, high } = gain.bounds;
  const hard = low === high ? '' : `; surely between ${plain(low)} and ${plain(high)} %`;
  const { formula, uses } = gain.working;
  const [first, last] = [uses.at(-2) ?? uses[0], uses.at(-1)];
  const span = { from: Math.min(first?.seconds ?? gain.seconds, gain.seconds), to: Math.max(last?.seconds ?? gain.seconds, gain.seconds) };
  return {
    ...figure,
    ...written,
    detail: written.detail + stored + charge + (hours === undefined ? '' : ` · ${hours}`),
    working: { ...gain.working, formula: `${formula}${hard}${used}` },
    span: low === high ? { from: gain.seconds, to: gain.seconds } : span,
  };
}

const POWER = 'Power and energy' as const;
const NO_WATTS = 'no watts were read';

function peakFigure({ peak: top, topSample, wattsRead, accuracy, feeds }: Figures): WrittenFigure {
  if (!top) return { id: 'peak', group: POWER, label: 'Peak', detail: wattsRead > 0 ? 'less than a minute was sampled' : NO_WATTS };
  const held = top.kind === '60-second mean';
  const peak = withMargin(top.watts, shownMargin(uncertaintyOf(top.watts, accuracy)), 1);
  const formula = held ? 'area under the minute ÷ 60 s' : `the highest of ${wattsRead} readings of watts`;
  return {
    id: 'peak',
    group: POWER,
    label: `Peak, highest ${top.kind}`,
    value: `${peak.value} W`,
    detail: `± ${peak.margin} W · ${held ? 'from' : 'at'} ${spell(top.seconds, 1)}${topSample ? `; highest sample ${fixed(topSample.value, 1)} W at ${spell(topSample.seconds, 1)}` : ''}${onSource(feeds, top.seconds)}`,
    working: { formula: `${formula}; the meter ± (${meterSays(accuracy)})`, unit: 'W', uses: top.uses },
    span: { from: top.seconds, to: top.seconds + (held ? 60 : 0) },
  };
}

function energyFigures({ energy: found, wattsRead, wattsUsed, accuracy }: Figures): WrittenFigure[] {
  const [average, total] = [
    { id: 'average', group: POWER, label: 'Average' },
    { id: 'energy', group: POWER, label: 'Energy in' },
  ];
  if (found.averageWatts === undefined) {
    const detail = wattsRead === 1 ? 'one reading of watts is not enough' : NO_WATTS;
    return [
      { ...average, detail },
      { ...total, detail },
    ];
  }
  const coverage = found.whole > 0 ? found.covered / found.whole : 0;
  const covers = coverage < 0.98 ? `covers ${fixed(coverage * 100)} % of the time` : 'covers the whole run';
  const unseen = found.unseen.length > 0 ? `, less ${found.unseen.length} unseen` : '';
  if (found.isCounted) return countedFigures(found, average, total);
  const formula = `Σ ½ (W₁ + W₂) × (t₂ − t₁) over ${wattsRead - 1} steps${unseen}`;
  const [mean, whole] = [
    withMargin(found.averageWatts, shownMargin(found.averageUncertainty), 1),
    withMargin(found.wattHours, shownMargin(found.uncertainty), 2),
  ];
  const drained = found.wattHoursOut > 0;
  const out: WrittenFigure = {
    id: 'energy-out',
    group: POWER,
    label: 'Energy out',
    value: `${fixed(found.wattHoursOut, 1)} Wh`,
    detail: 'watts below zero',
  };
  return [
    {
      ...average,
      value: `${mean.value} W`,
      detail: `± ${mean.margin} W · ${covers}`,
      working: {
        formula: drained
          ? `(${plain(found.wattHours)} Wh in − ${plain(found.wattHoursOut)} Wh out) ÷ ${spell(found.covered, 1)}`
          : `${plain(found.wattHours)} Wh ÷ ${spell(found.covered, 1)}`,
        unit: 'W',
        uses: wattsUsed.ends,
      },
    },
    {
      ...total,
      value: found.unseen.length > 0 ? `at least ${atLeast(found.wattHours, whole.margin)} Wh` : `${whole.value} Wh`,
      detail: `± ${whole.margin} Wh · ${covers}`,
      working: {
        formula: `${formula}${drained ? ', above zero' : ''}; the meter ± (${meterSays(accuracy)}), and what lies between readings`,
        unit: 'W',
        uses: wattsUsed.all,
      },
    },
    ...(drained ? [{ ...out, working: { formula: `${formula}, below zero`, unit: 'W', uses: wattsUsed.all } }] : []),
  ];
}

/** A least is rounded down, to the decimals that its margin has. */
function atLeast(value: number, margin: string): string {
  const decimals = margin.split('.')[1]?.length ?? 0;
  return fixed(Math.floor(value * 10 ** decimals) / 10 ** decimals, decimals);
}

/** How far off a meter can be, as its maker would write it. */
const meterSays = ({ share, watts }: Accuracy) => `${plain(share * 100)} %${watts > 0 ? ` + ${plain(watts)} W` : ''}`;

/** What the meter's own watt-hour counter says passed between its first and last reading. */
function counterFigure(counter: Counter | undefined): WrittenFigure[] {
  if (!counter) return [];
  const { first, last, total, resets } = counter;
  const figure = { id: 'counter', group: POWER, label: 'By the meter’s counter', span: { from: first.seconds, to: last.seconds } };
  if (resets.length > 0) {
    const detail = `it began anew at ${listed(resets.map(({ seconds }) => spell(seconds)))}: what ran in between is missing`;
    const working = { formula: 'the sum of its rises, from nothing where it began anew', unit: 'Wh', uses: resets };
    return [{ ...figure, value: `at least ${fixed(total, 2)} Wh`, detail, working }];
  }
  const working = { formula: `${plain(last.value)} − ${plain(first.value)}`, unit: 'Wh', uses: [first, last] };
  return [{ ...figure, value: `${fixed(total, 2)} Wh`, detail: `from ${spell(first.seconds)} to ${spell(last.seconds)}`, working }];
}

/** Mean power by energy samples, and the time to a level that it projects, with what that takes for granted. */
function sampledFigures(sampled: Sampled | undefined, projectTo: number, feeds: Figures['feeds']): WrittenFigure[] {
  if (!sampled) return [];
  const { samples, battery, start, uses } = sampled;
  const [first, last] = [samples[0], samples.at(-1)];
  const total = sum(samples, ({ wattHours }) => wattHours);
  const length = sum(samples, ({ from, to }) => to - from);
  const span = first && last && { from: first.from, to: last.to };
  const power = withMargin(sampled.watts, shownMargin(sampled.uncertainty), 2);
  const several = samples.length > 1 ? ` over ${samples.length} samples` : '';
  const mean: WrittenFigure = {
    id: 'sampled',
    group: POWER,
    label: 'Mean by energy sample',
    value: `${power.value} W`,
    detail: `± ${power.margin} W${several}${onSource(feeds, first?.from ?? 0)}`,
    working: { formula: `${plain(total)} Wh ÷ ${spell(length, 1)}`, unit: 'Wh', uses },
    span,
  };
  const found = projection(sampled, projectTo);
  const label = `To ${projectTo} % by energy sample`;
  if (!found || battery === undefined || start === undefined) {
    const detail =
      battery === undefined
        ? 'what the battery holds is not on the shelf'
        : start === undefined
          ? 'no level was read'
          : `it began at ${start} %`;
    return [mean, { id: 'projected', group: POWER, label, detail }];
  }
  const margin = shownMargin(found.uncertainty);
  return [
    mean,
    {
      id: 'projected',
      group: POWER,
      label,
      value: `about ${spell(found.seconds, margin)}`,
      detail: `± ${spell(Math.ceil(margin / 60 - 1e-9) * 60)}; steady power, no loss and no taper taken for granted: a least`,
      working: {
        formula: `${plain(battery)} Wh × ${projectTo - start} % ÷ (${plain(total)} Wh ÷ ${spell(length, 1)})`,
        unit: 'Wh',
        uses,
      },
      span,
    },
  ];
}

/** What the counter of a meter says of average and energy, where no watts were read. */
function countedFigures(counted: Energy, average: Pick<WrittenFigure, 'id' | 'group' | 'label'>, total: typeof average): WrittenFigure[] {
  const mean = withMargin(counted.averageWatts ?? 0, shownMargin(counted.averageUncertainty), 2);
  const whole = withMargin(counted.wattHours, shownMargin(counted.uncertainty), 2);
  const working = { formula: `${plain(counted.wattHours)} Wh ÷ ${spell(counted.covered, 1)}`, unit: 'Wh', uses: [] };
  return [
    { ...average, value: `${mean.value} W`, detail: `± ${mean.margin} W · by the counter, for no watts were read`, working },
    {
      ...total,
      value: `${whole.value} Wh`,
      detail: `± ${whole.margin} Wh · by the counter`,
      working: { ...working, formula: 'last less first' },
    },
  ];
}

/** Warmth by hand, in order of time: `warm at 20 min, hot at 35 min`. */
function feltFigure(felt: Figures['felt']): WrittenFigure[] {
  const last = felt.at(-1);
  if (!last) return [];
  const says = (event: string) => event.replace('felt ', '');
  const earlier = felt.slice(0, -1).map(({ event, seconds }) => `${says(event)} at ${spell(seconds)}`);
  const detail = `at ${spell(last.seconds)}${earlier.length > 0 ? `; before: ${listed(earlier)}` : ''}; by hand, and never ranked`;
  const working = { formula: 'as it was noted', unit: '', uses: [] };
  return [
    { id: 'felt', group: 'Heat', label: 'Felt', value: says(last.event), detail, working, span: { from: last.seconds, to: last.seconds } },
  ];
}
