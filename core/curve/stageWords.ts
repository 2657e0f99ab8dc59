import { shownMargin } from '../margin/bounds';
import { spell } from '../quantity/duration';
import { fixed, withMargin } from '../quantity/figures';
import { listed } from '../quantity/listed';
import { efficiencyOf, oddEfficiency } from './efficiency';
import type { Figures } from './figures';
import { writeStages, type Stage } from './stages';
import type { WrittenFigure } from './written';
import { writeEndLevel } from './levelEnd';
import { plain } from './working';

const KINDS: Readonly<Record<Stage['kind'], string>> = { steady: 'Steady', taper: 'Taper', hold: 'Held', idle: 'Idle' };

/** What is told of energy beside the sum: mean power to the levels quoted, charge, efficiency, and what flows once it is full. */
export function moreOfEnergy(figures: Figures): WrittenFigure[] {
  const { averages, aboveHalf, aboveAsked, idle, charge, energy, battery } = figures;
  const group = 'Power and energy';
  const efficiency = efficiencyOf(figures);
  const odd = efficiency && oddEfficiency(efficiency, energy.unseen.length);
  const means = averages.map(({ level, watts, uncertainty, from, to, seen }): WrittenFigure => {
    const written = withMargin(watts, shownMargin(uncertainty), 1);
    const covers = seen < 0.98 ? ` · ${fixed(seen * 100)} % of the time was seen` : '';
    const working = { formula: `area under the power up to ${spell(to, 1)} ÷ that time`, unit: 'W', uses: [] };
    return {
      id: `average-${level}`,
      group,
      label: `Average to ${level} %`,
      value: `${written.value} W`,
      detail: `± ${written.margin} W${covers}`,
      working,
      span: { from, to },
    };
  });
  const parts: (WrittenFigure | undefined)[] = [
    ...means,
    aboveHalf && {
      id: 'above-half',
      group,
      label: 'Above half its peak',
      value: spell(aboveHalf.seconds),
      detail: `above ${fixed(aboveHalf.limit, 1)} W`,
      working: { formula: `time above ${plain(aboveHalf.limit)} W, on the line between readings`, unit: 'W', uses: [] },
    },
    aboveAsked && {
      id: 'above-asked',
      group,
      label: `Above ${plain(aboveAsked.limit)} W`,
      value: spell(aboveAsked.seconds),
      detail: 'the power that was asked for',
      working: { formula: `time above ${plain(aboveAsked.limit)} W, on the line between readings`, unit: 'W', uses: [] },
    },
    idle && {
      id: 'idle',
      group,
      label: 'Once it was full',
      value: `${fixed(idle.watts, 1)} W`,
      detail: `on average, from ${spell(idle.from)} on`,
      working: { formula: `area under the power from ${spell(idle.from, 1)} on ÷ that time`, unit: 'W', uses: [] },
      span: { from: idle.from, to: idle.to },
    },
    charge && {
      id: 'charge',
      group,
      label: 'Charge in',
      value: `${fixed(charge.milliampHours)} mAh`,
      detail: `at the cable, ${charge.isCounted ? 'by the meter’s counter' : 'by the amps that were read'}`,
      working: { formula: charge.isCounted ? 'last less first' : 'Σ ½ (A₁ + A₂) × (t₂ − t₁)', unit: 'mAh', uses: [] },
    },
    efficiency && {
      id: 'efficiency',
      group,
      label: 'Stored of it',
      value: `${fixed(efficiency.share * 100)} %`,
      detail: `± ${Math.ceil(200 * efficiency.uncertainty)} % · ${fixed(efficiency.stored, 1)} Wh in the battery${odd ? `; ${odd}` : ''}`,
      working: {
        formula: `${plain(battery ?? 0)} Wh × ${plain(efficiency.to - efficiency.from)} % ÷ ${plain(energy.wattHours)} Wh`,
        unit: 'Wh',
        uses: [],
      },
    },
  ];
  return parts.filter((each) => each !== undefined);
}

/** The stages, the handshake and the cycling of a charge. */
export function stageFigures({ stages, volts, cycles }: Figures): WrittenFigure[] {
  const group = 'Stages';
  const level = ({ from, to }: Stage['level']) => (from && to ? ` · ${writeEndLevel(from)} → ${writeEndLevel(to)} %` : '');
  const stageWords = stages.map((stage, index): WrittenFigure => {
    const { kind, from, to, watts, first, last, share } = stage;
    const at = stage.volts === undefined ? '' : ` · ${fixed(stage.volts, 1)} V`;
    return {
      id: `stage-${index + 1}`,
      group,
      label: `${index + 1}. ${KINDS[kind]}`,
      value: kind === 'taper' ? `${fixed(first, 1)} → ${fixed(last, 1)} W` : `${fixed(watts, 1)} W`,
      detail: `${spell(from)} to ${spell(to)}, ${fixed(share * 100)} % of the time${level(stage.level)}${at}${stage.source === undefined ? '' : ` · on ${stage.source}`}`,
      working: {
        formula: `mean ${plain(watts)} W; the cheapest description of the power as constants and straight lines; falls that follow each other are one taper`,
        unit: 'W',
        uses: [],
      },
      span: { from, to },
    };
  });
  const whole: WrittenFigure[] =
    stages.length > 1
      ? [
          {
            id: 'stages',
            group,
            label: 'In words',
            value: '',
            detail: writeStages(stages),
            working: { formula: 'the stages below, one after another', unit: 'W', uses: [] },
          },
        ]
      : [];
  const { steps, supply } = volts;
  const [before] = steps;
  const handshakes: WrittenFigure[] =
    before && (steps.length > 1 || supply)
      ? [
          {
            id: 'volts',
            group,
            label: 'Volts',
            value: `${steps.map((step) => fixed(step.volts, step.volts % 1 < 0.05 ? 0 : 1)).join(' → ')} V`,
            detail: [
              steps.length > 1 && `stepped at ${listed(steps.slice(1).map(({ seconds }) => spell(seconds, seconds < 120 ? 1 : 60)))}`,
              supply === 'fixed' && 'one of the fixed voltages at a time',
              supply === 'stepping' && 'a programmable supply that follows the battery in small steps',
            ]
              .filter(Boolean)
              .join(' · '),
            working: {
              formula: 'steps of more than 0.9 V that stood',
              unit: 'V',
              uses: steps.map(({ seconds, volts: value }) => ({ seconds, value })),
            },
            span: { from: steps.at(-1)?.seconds ?? 0, to: steps.at(-1)?.seconds ?? 0 },
          },
        ]
      : [];
  const cycled = cycles.map(({ from, to, period, duty, by }, index): WrittenFigure => ({
    id: `cycle-${index + 1}`,
    group,
    label: by === 'light' ? 'Light on and off' : 'On and off',
    value: `every ${spell(period, period < 120 ? 1 : 60)}`,
    detail: `on for ${fixed(duty * 100)} % of it, from ${spell(from)} to ${spell(to)}`,
    working: { formula: 'from one time it comes on to the next, on average', unit: '', uses: [] },
    span: { from, to },
  }));
  return [...whole, ...stageWords, ...handshakes, ...cycled];
}
