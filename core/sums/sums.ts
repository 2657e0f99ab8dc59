import { uncertaintyOf } from '../curve/energy';
import { efficiencyOf } from '../curve/efficiency';
import type { EnergySample } from '../curve/energySample';
import type { ReadRun } from '../curve/figures';
import type { Workload } from '../curve/workloads';
import { valueIn } from '../ink/fold';
import { expectationOf } from '../power/expectations';
import { USUALLY } from '../quantity/assumed';
import { spell } from '../quantity/duration';
import { fixed, withMargin } from '../quantity/figures';
import { propagated, readTyped, typeFigure, type Typed } from './figure';

/** One figure that a sum is made of. */
export interface SumField {
  key: string;
  name: string;
  unit?: string | undefined;
  /** What stands in it at first: an assumption, said to be one. */
  usual?: string;
  /** Chosen rather than measured: it has no margin of its own. */
  isExact?: true;
  /** The sum is made without it where it is left empty. */
  isOptional?: true;
  min?: number;
  max?: number;
}

/** One thing that a sum says. */
export interface SumLine {
  label: string;
  value: string;
  /** Empty where it has none. */
  margin: string;
  working: string;
}

/** A run that a sum can be filled in from. */
export type SumSource = ReadRun & { workloads: readonly Workload[] };

/** A small sum that people do in their heads. */
export interface Sum {
  id: string;
  title: string;
  about: string;
  fields: readonly SumField[];
  /** What it comes to; of inputs that have no meaning together, a sentence in place of figures. */
  work: (inputs: Inputs) => SumLine[] | string;
  /** Fields as a run fills them in: those that it knows; `remark` is what is to be known of them. */
  prefill: (run: SumSource) => Record<string, string | undefined>;
}
type Inputs = Readonly<Record<string, Typed>>;

const line = (label: string, { value, uncertainty }: Typed, unit: string, working: string, max = 2): SumLine => {
  const told = withMargin(value, 2 * uncertainty, max);
  return { label, value: `${told.value} ${unit}`.trim(), margin: uncertainty > 0 ? `± ${told.margin} ${unit}`.trim() : '', working };
};
/** A time, in seconds. */
const time = (label: string, { value, uncertainty }: Typed, working: string): SumLine => {
  const off = 2 * uncertainty;
  const step = off < 60 ? 1 : 60;
  return { label, value: spell(value, off), margin: off > 0 ? `± ${spell(Math.ceil(off / step - 1e-9) * step, off)}` : '', working };
};
const field = (key: string, name: string, unit?: string, more: Partial<SumField> = {}): SumField => ({
  key,
  name,
  unit,
  min: 0,
  ...more,
});
const share = (key: string, name: string, usual?: string): SumField =>
  field(key, name, '%', { min: 1, max: 100, ...(usual !== undefined && { usual, isExact: true as const }) });
const of = (inputs: Inputs, key: string): number => inputs[key]?.value ?? Number.NaN;
const sumOf = (inputs: Inputs, work: (value: (key: string) => number) => number): Typed =>
  propagated(inputs, (values) => work((key) => values[key] ?? Number.NaN));

/** Watts of a run: of its energy sample, else its peak, with what its meter is off. */
const wattsOf = ({ figures: { sampled, peak, accuracy } }: ReadRun): string | undefined =>
  sampled ? typeFigure(sampled.watts, sampled.uncertainty) : peak && typeFigure(peak.watts, uncertaintyOf(peak.watts, accuracy));
/** Volts and amps of the first stage of a run; where no volts were read, those that its gear agrees on, and a remark that says so. */
function flowOf({ run, figures: { stages, peak } }: ReadRun): { volts?: string; amps?: string; remark?: string } {
  const stage = stages.find(({ volts, watts, kind }) => kind === 'steady' && volts !== undefined && watts > 0);
  if (stage?.volts !== undefined) return { volts: typeFigure(stage.volts), amps: typeFigure(stage.watts / stage.volts) };
  const { device, charger, cable, feed } = run.header;
  const { volts } = expectationOf(device, charger, cable, feed).negotiated;
  if (!peak || volts === undefined) return {};
  return {
    volts: typeFigure(volts),
    amps: typeFigure(peak.watts / volts),
    remark: 'No volts were read: they are those that its gear agrees on.',
  };
}
const batteryText = ({ figures }: ReadRun) => (figures.battery === undefined ? undefined : typeFigure(figures.battery, 0, 1));

/** The energy of a sample, with what its meter is off: that of the counter, else of the first stage. */
function energyText(
  { sampled, accuracy }: ReadRun['figures'],
  first: EnergySample | undefined,
  watts: number | undefined,
  length: number | undefined,
): string | undefined {
  if (first && sampled) return typeFigure(first.wattHours, (sampled.uncertainty * (first.to - first.from)) / 3600, 3);
  if (watts === undefined || !length) return undefined;
  return typeFigure((watts * length) / 3600, (uncertaintyOf(watts, accuracy) * length) / 3600, 2);
}

/** Past this level devices take ever less, in %; and the share of their power that they come down to at 100 % (common practice, no source). */
const TAPER = { from: 80, to: 0.1 };

/** How much longer a charge to a level takes for its taper: power falls evenly with the level from 80 % on, to a tenth at 100 %. */
export function tapered(from: number, to: number): number {
  const before = Math.max(0, Math.min(to, TAPER.from) - from);
  const [begin, end] = [Math.max(from, TAPER.from), Math.max(to, TAPER.from)];
  const slope = (1 - TAPER.to) / (100 - TAPER.from);
  const power = (level: number) => 1 - slope * (level - TAPER.from);
  return before + Math.log(power(begin) / power(end)) / slope;
}

/** Limits for packs in the cabin, in Wh (IATA dangerous goods rules for passengers, from memory). */
const AIR = { free: 100, approval: 160 };

/** So long a stretch is a sample, in seconds (common practice, no source). */
const SAMPLED = 300;

/** Every sum, in the order of the work. */
export const SUMS: readonly Sum[] = [
  {
    id: 'time-to-level',
    title: 'Time to a level',
    about: 'From what a few minutes of a meter tell: without loss, with loss, and with the taper at the end.',
    fields: [
      field('battery', 'Battery', 'Wh', { min: 0.1 }),
      field('energy', 'Energy sampled', 'Wh', { min: 0.001 }),
      field('minutes', 'Time sampled', 'min', { min: 0.1, isExact: true }),
      field('from', 'From', '%', { usual: '0', max: 100, isExact: true }),
      field('to', 'To', '%', { usual: '50', max: 100, isExact: true }),
      share('efficiency', 'Efficiency', '85'),
    ],
    work(inputs) {
      if (of(inputs, 'to') <= of(inputs, 'from')) return 'The level it goes to must lie above the one it comes from.';
      const seconds = (value: (key: string) => number, levels: number) =>
        (value('battery') * (levels / 100) * value('minutes') * 60) / value('energy');
      const lossless = sumOf(inputs, (value) => seconds(value, value('to') - value('from')));
      const lossy = sumOf(inputs, (value) => seconds(value, value('to') - value('from')) / (value('efficiency') / 100));
      const slow = sumOf(inputs, (value) => seconds(value, tapered(value('from'), value('to'))) / (value('efficiency') / 100));
      const watts = sumOf(inputs, (value) => (value('energy') * 60) / value('minutes'));
      return [
        line('Mean power', watts, 'W', 'energy sampled ÷ time sampled'),
        time('Without loss', lossless, 'battery × share to gain ÷ mean power'),
        time('With loss', lossy, 'the same ÷ efficiency'),
        time('With loss and taper', slow, `the same; from ${TAPER.from} % on power falls evenly to a tenth, assumed`),
      ];
    },
    prefill(run) {
      const { sampled, startLevel } = run.figures;
      const [first] = sampled?.samples ?? [];
      // Without a counter, the first minutes of its first stage are a sample.
      const stage = run.figures.stages.find(({ kind }) => kind === 'steady');
      const length = stage && Math.min(stage.to - stage.from, SAMPLED);
      const found = efficiencyOf(run.figures);
      return {
        battery: batteryText(run),
        energy: energyText(run.figures, first, stage?.watts, length),
        minutes: first ? typeFigure((first.to - first.from) / 60, 0, 2) : length ? typeFigure(length / 60, 0, 1) : undefined,
        from: startLevel === undefined ? undefined : String(startLevel),
        efficiency: found && typeFigure(100 * found.share, 100 * found.uncertainty, 0),
      };
    },
  },
  {
    id: 'load',
    title: 'Power and apparent load',
    about: 'What flows, from volts and amps; the load steps when a handshake completes.',
    fields: [field('volts', 'Volts', 'V', { min: 0.001 }), field('amps', 'Amps', 'A', { min: 0.0001 })],
    work: (inputs) => [
      line(
        'Power',
        sumOf(inputs, (value) => value('volts') * value('amps')),
        'W',
        'volts × amps',
      ),
      line(
        'Apparent load',
        sumOf(inputs, (value) => value('volts') / value('amps')),
        'Ω',
        'volts ÷ amps',
      ),
    ],
    prefill: flowOf,
  },
  {
    id: 'charge-energy',
    title: 'mAh and Wh',
    about: 'What a battery holds, either way, at its health.',
    fields: [
      field('charge', 'Charge', 'mAh', { isOptional: true, min: 0.1 }),
      field('energy', 'Energy', 'Wh', { isOptional: true, min: 0.001 }),
      field('volts', 'Nominal volts', 'V', { min: 0.1 }),
      share('health', 'Health', '100'),
    ],
    work(inputs) {
      if (!inputs.charge && !inputs.energy) return 'Fill in the charge or the energy.';
      const { charge, energy } = inputs;
      return [
        ...(charge
          ? [
              line(
                'Energy now',
                sumOf(inputs, (value) => (value('charge') / 1000) * value('volts') * (value('health') / 100)),
                'Wh',
                'mAh ÷ 1000 × nominal volts × health',
              ),
            ]
          : []),
        ...(energy
          ? [
              line(
                'Charge now',
                sumOf(inputs, (value) => ((value('energy') * 1000) / value('volts')) * (value('health') / 100)),
                'mAh',
                'Wh × 1000 ÷ nominal volts × health',
                0,
              ),
            ]
          : []),
      ];
    },
    prefill: ({ run }) => {
      const { milliampHours, nominalVolts, wattHours, health } = run.header.device;
      const text = (value: number | undefined) => (value === undefined ? undefined : String(value));
      return {
        charge: text(milliampHours),
        energy: milliampHours === undefined ? text(wattHours) : undefined,
        volts: text(nominalVolts),
        health: text(health),
      };
    },
  },
  {
    id: 'hours',
    title: 'Hours of use gained',
    about: 'What a gain in percent is worth in hours, for devices whose batteries differ.',
    fields: [
      field('claimed', 'Hours claimed', 'h', { isExact: true, min: 0.1 }),
      share('real', 'Of which in real use', String(USUALLY.realUse * 100)),
      field('gain', 'Gained', '%', { max: 100 }),
    ],
    work: (inputs) => [
      line(
        'Gained',
        sumOf(inputs, (value) => (value('claimed') * value('real') * value('gain')) / 10_000),
        'h',
        'hours claimed × real use × gain',
        1,
      ),
      line(
        'For each percent',
        sumOf(inputs, (value) => (value('claimed') * value('real')) / 10_000),
        'h',
        'hours claimed × real use ÷ 100',
      ),
    ],
    prefill({ run, figures }) {
      const { measuredHours, enduranceHours } = run.header.device;
      const gain = figures.gains.find(({ state }) => state === 'known');
      const hours = measuredHours ?? enduranceHours;
      return {
        claimed: hours === undefined ? undefined : String(hours),
        real: measuredHours === undefined ? undefined : '100',
        gain: gain?.state === 'known' ? typeFigure(gain.value, gain.uncertainty, 1) : undefined,
      };
    },
  },
  {
    id: 'pad',
    title: 'Efficiency of a pad',
    about: 'Watts into the device by watts into the pad. What it gives out is often only assumed: say so.',
    fields: [field('in', 'Into the pad', 'W', { min: 0.01 }), field('out', 'Out of it, metered or assumed', 'W')],
    work: (inputs) =>
      of(inputs, 'out') > of(inputs, 'in')
        ? 'A pad cannot give out more than it draws: check which is which.'
        : [
            line(
              'Efficiency',
              sumOf(inputs, (value) => (100 * value('out')) / value('in')),
              '%',
              'out ÷ in',
              0,
            ),
            line(
              'Lost as heat',
              sumOf(inputs, (value) => value('in') - value('out')),
              'W',
              'in − out',
            ),
          ],
    prefill(run) {
      const trial = run.run.trials.find((each) => each.wattsOut !== undefined && valueIn(each, 'watts') !== undefined);
      if (trial)
        return {
          in: typeFigure(valueIn(trial, 'watts') ?? 0),
          out: typeFigure(trial.wattsOut ?? 0),
          ...(trial.wattsOutAssumed && { remark: 'What it gives out is assumed.' }),
        };
      return run.run.header.charger.kind === 'pad' ? { in: wattsOf(run) } : {};
    },
  },
  {
    id: 'split',
    title: 'Power split',
    about: 'Where the power at the cable goes: into the battery, or used by the device. Below zero the battery helps out.',
    fields: [field('in', 'At the cable', 'W'), field('battery', 'Into the battery', 'W', { min: -1000 })],
    work(inputs) {
      const used = sumOf(inputs, (value) => value('in') - value('battery'));
      const isDraining = of(inputs, 'battery') < 0;
      return [
        line('Used by the device', used, 'W', 'at the cable − into the battery'),
        {
          label: 'The battery',
          value: isDraining ? 'drains, though plugged in' : of(inputs, 'battery') > 0 ? 'charges' : 'holds',
          margin: '',
          working: 'by the sign of its watts',
        },
      ];
    },
    prefill: ({ workloads }) => {
      const work = workloads.find(({ inputWatts, batteryWatts }) => inputWatts !== undefined && batteryWatts !== undefined);
      return {
        in: work?.inputWatts === undefined ? undefined : typeFigure(work.inputWatts),
        battery: work?.batteryWatts === undefined ? undefined : typeFigure(work.batteryWatts),
      };
    },
  },
  {
    id: 'pack',
    title: 'Pack and panel',
    about: 'How large a pack carries so many hours of work, and which panel fills it in a day.',
    fields: [
      field('watts', 'Work takes', 'W', { min: 0.01 }),
      field('hours', 'For', 'h', { isExact: true, min: 0.1 }),
      share('conversion', 'Conversion', '85'),
      share('usable', 'Usable of the pack', '90'),
      field('sun', 'Sun hours a day', 'h', { usual: '4', isExact: true, min: 0.1, max: 24 }),
      share('derating', 'A panel gives of its rating', '70'),
    ],
    work(inputs) {
      const pack = (value: (key: string) => number) =>
        (value('watts') * value('hours')) / ((value('conversion') / 100) * (value('usable') / 100));
      const size = sumOf(inputs, pack);
      return [
        line(
          'Work',
          sumOf(inputs, (value) => value('watts') * value('hours')),
          'Wh',
          'watts × hours',
          0,
        ),
        line('Pack', size, 'Wh', 'work ÷ (conversion × usable share)', 0),
        line(
          'Panel, to make it up in a day',
          sumOf(
            inputs,
            (value) => (value('watts') * value('hours')) / ((value('conversion') / 100) * value('sun') * (value('derating') / 100)),
          ),
          'W',
          'work ÷ conversion ÷ (sun hours × derating)',
          0,
        ),
        ...(size.value > AIR.free ? [airClass(size)] : []),
      ];
    },
    prefill: (run) => {
      const work = run.workloads.find(({ input, inputWatts }) => input === 'consumption' && inputWatts !== undefined);
      return { watts: work?.inputWatts === undefined ? wattsOf(run) : typeFigure(work.inputWatts) };
    },
  },
  {
    id: 'bank',
    title: 'Charges per power bank',
    about: 'How often a bank fills a device, after what both lose.',
    fields: [
      field('bank', 'Bank', 'Wh', { min: 0.1 }),
      share('conversion', 'Conversion in the bank', '85'),
      field('battery', 'Device', 'Wh', { min: 0.1 }),
      share('efficiency', 'Charging efficiency', '85'),
    ],
    work: (inputs) => [
      line(
        'Full charges',
        sumOf(inputs, (value) => (value('bank') * (value('conversion') / 100)) / (value('battery') / (value('efficiency') / 100))),
        '',
        'bank × conversion ÷ (device ÷ efficiency)',
        1,
      ),
    ],
    prefill: (run) => {
      const found = efficiencyOf(run.figures);
      const bank = run.run.header.charger.wattHours;
      return {
        bank: bank === undefined ? undefined : String(bank),
        battery: batteryText(run),
        efficiency: found && typeFigure(100 * found.share, 100 * found.uncertainty, 0),
      };
    },
  },
  {
    id: 'cable',
    title: 'Cable loss',
    about: 'What a cable turns into heat, from the volts at its two ends.',
    fields: [
      field('near', 'Volts at the charger', 'V', { min: 0.1 }),
      field('far', 'Volts at the device', 'V', { min: 0.1 }),
      field('amps', 'Amps', 'A', { min: 0.001 }),
    ],
    work: (inputs) =>
      of(inputs, 'far') > of(inputs, 'near')
        ? 'Volts fall along a cable: the device cannot see more than the charger gives.'
        : [
            line(
              'Lost',
              sumOf(inputs, (value) => (value('near') - value('far')) * value('amps')),
              'W',
              '(volts at the charger − at the device) × amps',
            ),
            line(
              'Of what is drawn',
              sumOf(inputs, (value) => 100 * (1 - value('far') / value('near'))),
              '%',
              '1 − volts at the device ÷ at the charger',
              1,
            ),
            line(
              'Resistance',
              sumOf(inputs, (value) => (value('near') - value('far')) / value('amps')),
              'Ω',
              'volts lost ÷ amps',
              3,
            ),
          ],
    prefill: (run) => {
      const { volts, amps, remark } = flowOf(run);
      return { far: volts, amps, remark };
    },
  },
  {
    id: 'cost',
    title: 'Cost of a charge',
    about: 'What a full charge costs at the wall.',
    fields: [
      field('battery', 'Battery', 'Wh', { min: 0.1 }),
      share('efficiency', 'Efficiency, wall to battery', '75'),
      field('price', 'Price of a kWh', undefined, { isExact: true }),
      field('charges', 'Charges a year', undefined, { usual: '300', isExact: true }),
    ],
    work: (inputs) => [
      line(
        'At the wall',
        sumOf(inputs, (value) => value('battery') / (value('efficiency') / 100)),
        'Wh',
        'battery ÷ efficiency',
        1,
      ),
      line(
        'A charge',
        sumOf(inputs, (value) => (value('battery') / (value('efficiency') / 100) / 1000) * value('price')),
        '',
        'at the wall ÷ 1000 × price',
        4,
      ),
      line(
        'A year',
        sumOf(inputs, (value) => (value('battery') / (value('efficiency') / 100) / 1000) * value('price') * value('charges')),
        '',
        'a charge × charges',
        2,
      ),
    ],
    prefill: (run) => ({ battery: batteryText(run) }),
  },
  {
    id: 'worth',
    title: 'Worth, for each minute saved',
    about: 'What a dearer charger and the cable it needs cost for each minute they save.',
    fields: [
      field('charger', 'Charger', undefined, { isExact: true }),
      field('cable', 'Cable it needs', undefined, { usual: '0', isExact: true }),
      field('minutes', 'Its time', 'min', { min: 0.1 }),
      field('before', 'Time without it', 'min', { min: 0.1 }),
    ],
    work(inputs) {
      const saved = sumOf(inputs, (value) => value('before') - value('minutes'));
      if (saved.value <= 0) return 'It saves no time.';
      if (saved.value <= 2 * saved.uncertainty) return 'What it saves is no more than its margin: no price for a minute can be told.';
      return [
        time('Saved', { value: saved.value * 60, uncertainty: saved.uncertainty * 60 }, 'time without it − its time'),
        line(
          'A minute saved',
          sumOf(inputs, (value) => (value('charger') + value('cable')) / (value('before') - value('minutes'))),
          '',
          '(charger + cable) ÷ minutes saved',
        ),
      ];
    },
    prefill: ({ run, figures }) => {
      const reached = figures.milestones.find(({ level, state }) => level === 80 && state === 'reached');
      const { charger, cable } = run.header;
      return {
        charger: charger.price === undefined ? undefined : String(charger.owned ? 0 : charger.price),
        cable: cable?.price === undefined ? undefined : String(cable.owned ? 0 : cable.price),
        minutes: reached?.state === 'reached' ? typeFigure(reached.estimate / 60, reached.uncertainty / 60, 1) : undefined,
      };
    },
  },
  {
    id: 'air',
    title: 'Air travel class of a pack',
    about: 'Whether a pack may come into the cabin. The airline’s own rules come first: ask before you fly.',
    fields: [
      field('charge', 'Charge', 'mAh', { isOptional: true, min: 0.1 }),
      field('volts', 'Nominal volts', 'V', { isOptional: true, min: 0.1, usual: '3.7' }),
      field('energy', 'Or energy, as printed', 'Wh', { isOptional: true, min: 0.01 }),
    ],
    work(inputs) {
      const { charge, volts, energy } = inputs;
      if (!energy && !(charge && volts)) return 'Fill in the energy, or charge and volts.';
      const held = energy ?? sumOf(inputs, (value) => (value('charge') / 1000) * value('volts'));
      return [line('Energy', held, 'Wh', energy ? 'as printed' : 'mAh ÷ 1000 × nominal volts', 1), airClass(held)];
    },
    prefill: ({ run }) => {
      const { charger, device } = run.header;
      if (charger.wattHours !== undefined) return { energy: String(charger.wattHours) };
      return {
        energy: device.wattHours === undefined ? undefined : String(device.wattHours),
        charge: device.milliampHours === undefined ? undefined : String(device.milliampHours),
        volts: device.nominalVolts === undefined ? undefined : String(device.nominalVolts),
      };
    },
  },
];

function airClass({ value: wattHours, uncertainty }: Typed): SumLine {
  const says = (value: string): SumLine => ({
    label: 'In the air',
    value,
    margin: '',
    working: `up to ${AIR.free} Wh free, up to ${AIR.approval} Wh with approval`,
  });
  const close = [AIR.free, AIR.approval].find((limit) => Math.abs(wattHours - limit) < 2 * uncertainty);
  if (close !== undefined) return says(`too close to ${close} Wh to tell: what is printed on it counts`);
  return says(
    wattHours <= AIR.free ? 'carried freely' : wattHours <= AIR.approval ? 'carried with the airline’s approval' : 'not carried in a cabin',
  );
}

/** What is wrong with what was typed into a field; nothing where it can be read, or is empty and may be. */
export function fieldError(asked: SumField, text: string): string | undefined {
  if (text.trim() === '') return undefined;
  const read = readTyped(text, asked.isExact);
  if (!read) return `Write a number, with a margin if you know it: ${typeFigure(26.1, 0.15)}.`;
  if (read.value < (asked.min ?? -Infinity) || (asked.min === 0 && read.value < 0))
    return `It is ${fixed(asked.min ?? 0, (asked.min ?? 0) % 1 === 0 ? 0 : 3)} at least.`;
  return read.value > (asked.max ?? 1e9) ? `It is ${fixed(asked.max ?? 1e9)} at most.` : undefined;
}

/** Works a sum out of what was typed. @returns its lines; a sentence where its figures have no meaning together; `undefined` while something is missing or wrong */
export function workOut({ fields, work }: Sum, texts: Readonly<Record<string, string>>): SumLine[] | string | undefined {
  const inputs: Record<string, Typed> = {};
  for (const asked of fields) {
    const text = texts[asked.key] ?? '';
    if (fieldError(asked, text) !== undefined) return undefined;
    const read = readTyped(text, asked.isExact);
    if (read) inputs[asked.key] = read;
    else if (!asked.isOptional) return undefined;
  }
  const found = work(inputs);
  return typeof found === 'string' || found.every(({ value }) => !/NaN|Infinity/.test(value)) ? found : undefined;
}

/** What stands in the fields of a sum before anything is typed. */
export const usualTexts = ({ fields }: Sum): Record<string, string> =>
  Object.fromEntries(fields.map(({ key, usual = '' }) => [key, usual]));

/** A sum in one sentence, as a note keeps it. */
export const noteOf = (sum: Sum, texts: Readonly<Record<string, string>>, lines: readonly SumLine[]): string =>
  `${sum.title}: ${lines.map(({ label, value, margin }) => `${label.toLowerCase()} ${[value, margin].filter(Boolean).join(' ')}`).join('; ')}. From ${sum.fields
    .flatMap(({ key, name, unit }) => (texts[key] ? [`${name.toLowerCase()} ${texts[key] ?? ''}${unit ? ` ${unit}` : ''}`] : []))
    .join(', ')}.`;
