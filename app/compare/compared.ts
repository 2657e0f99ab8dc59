import { useThrottleFn } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import type { LocationQuery } from 'vue-router';
import { groupsOf, headlineOf, questionOf, underLoad, usualWindow, WISHES, USUAL_WISHES, type Wishes } from '@core/advise';
import {
  aboutOf,
  baselineOf,
  columnsOf,
  compareRuns,
  gainUnitsOf,
  goalSays,
  namesOf,
  setupsOf,
  sharedSources,
  standingsOf,
  unlikeIn,
  usualBaseline,
  usualGainUnit,
  usualMeasures,
  usualYardstick,
  withoutSequences,
  yardsticksOf,
  type GainUnit,
  type Yardstick,
} from '@core/compare';
import { LEVELS } from '@core/curve';
import { steady } from '../kit/steady';
import { dayText } from '../kit/dates';
import { useSettings } from '../kit/settings';
import { useComparisons } from '../logbook/comparisons';
import { useLanes } from '../logbook/lanes';
import { useLogbook } from '../logbook/runs';
import { useShelf } from '../logbook/shelf';
import { distinctPens } from '../strip/pens';
import { besideOf, type Beside } from '../workers/opened';

/** The level that times are taken to where nothing else is chosen, in %. */
const FULL = 100;
export const asText = (value: unknown) => (typeof value === 'string' ? value : '');

/** In what gains are told. */
export const GAIN_UNIT_WORDS: Readonly<Record<GainUnit, string>> = { '%': 'in points', Wh: 'in Wh', mAh: 'in mAh', h: 'in hours of use' };

/** What a comparison can be looked at as. */
export const SHOWN = { curves: 'Curves', bars: 'Bars', matrix: 'Matrix', verdict: 'Verdict' } as const;
type Shown = keyof typeof SHOWN;

/** The bars that come first, by what the methods of the runs are about. */
const BEGINS = { gains: 'Gains', times: 'Times', power: 'Power and energy', work: 'Power and energy' } as const;

/**
 * What is compared, from the runs that an address names to the headline: every figure on the page is worked out here, once. Nothing of it is on the screen.
 *
 * @param query what stands in the address: runs, baseline, yardstick, unit, columns, picture, and what its reader needs
 */
export function useCompared(query: () => LocationQuery) {
  const logbook = useLogbook();
  const lanes = useLanes();
  const shelf = useShelf();
  const settings = useSettings();
  const comparisons = useComparisons();

  const chosen = steady(() => [...new Set(asText(query().runs).split('.').filter(Boolean))]);
  /** Those of them that are live. What other lanes log changes nothing here. */
  const live = steady(() => lanes.records.filter(({ header }) => chosen.value.includes(header.id)));
  /** Whether something is what setups are to be set against each other by, as the address says. */
  const isAsked = (id: string | number) => String(id) === query().level;

  const found = shallowRef<(Beside | undefined)[]>([]);
  const opened = steady(() => found.value.filter((one) => one !== undefined));
  const missing = shallowRef<string[]>([]);
  /** While runs are opened: how many are there. */
  const opening = ref<{ done: number; of: number }>();

  /** Now and then is enough: each word that changes is a page to paint, and sixty runs come one upon the other. */
  const tell = useThrottleFn((done: number) => {
    if (opening.value) opening.value = { ...opening.value, done };
  }, 250);

  /** The ink of each, as it is now: what is struck, undone or added elsewhere is compared anew. */
  const stamps = computed(() => chosen.value.map((id) => logbook.stampOf(id)).join());

  let turn = 0;
  watch(
    [chosen, live, stamps],
    async ([ids, records]) => {
      const mine = (turn += 1);
      opening.value = { done: 0, of: ids.length };
      const beside = new Map(records.map((record) => [record.header.id, besideOf(record)]));
      const filed = ids.filter((id) => !beside.has(id));
      const laid = logbook.openForComparison(filed, (done) => {
        if (mine === turn) void tell(beside.size + done);
      });
      const all = await laid.finally(() => {
        if (mine === turn) opening.value = undefined;
      });
      if (mine !== turn) return;
      found.value = ids.map((id) => beside.get(id) ?? all.get(id));
      missing.value = ids.filter((_, index) => !found.value[index]);
    },
    { immediate: true },
  );

  /** What was charged and read: spot checks have a table of their own. */
  const charges = computed(() => opened.value.filter(({ run }) => run.header.list === undefined));
  /** The one chosen; without one the charger that came in the box, for that is what others are set against. */
  const baseline = computed(() => {
    const asked = asText(query().base);
    return chosen.value.includes(asked) ? asked : (usualBaseline(charges.value.map(({ run }) => run)) ?? charges.value[0]?.run.header.id);
  });
  const setups = computed(() => setupsOf(charges.value));
  const units = computed(() => gainUnitsOf(charges.value));
  const unit = computed<GainUnit>(() => units.value.find((each) => each === query().unit) ?? usualGainUnit(charges.value));
  /** Energy samples are carried on to the level that times are taken to; of none, to the one that a run’s own page takes. */
  const carriedOn = computed(() => ({ from: settings.projectFrom, to: LEVELS.find(isAsked) ?? settings.projectTo }));
  const compared = computed(() => columnsOf(setups.value, unit.value, carriedOn.value));
  const measures = computed(() => compared.value.map(({ measure }) => measure));
  const about = computed(() => aboutOf(charges.value));
  /** What setups are set against each other by: as chosen, else by what their methods are about. */
  const yardsticks = computed(() => yardsticksOf(measures.value));
  const yardstick = computed<Yardstick>(() => {
    const usual = usualYardstick(compared.value, about.value);
    const found = yardsticks.value.find(({ id }) => isAsked(id)) ?? yardsticks.value.find(({ id }) => id === usual);
    return found ?? { id: String(FULL), title: '', says: '', level: FULL };
  });
  const rows = computed(() => compareRuns(charges.value, baseline.value ?? '', yardstick.value.level ?? FULL));
  const names = computed(() => namesOf(rows.value));
  /** Which row each run is in: repeats share its name and its pen; a sequence of sources has a row of its own. */
  const rowOf = computed(() => charges.value.map(({ run }) => rows.value.findIndex(({ runs }) => runs.includes(run))));
  /** Of several devices a charger has one colour throughout: that of its first row. */
  const pens = computed(() => {
    const own = rows.value.map(({ run }) => run.header.pen);
    const sources = sharedSources(rows.value);
    if (!sources) return distinctPens(own);
    const each = [...new Set(sources)];
    const drawn = distinctPens(each.map((source) => own[sources.indexOf(source)] ?? 0));
    return sources.map((source) => drawn[each.indexOf(source)] ?? 0);
  });
  const baselines = computed(() =>
    rows.value.flatMap(({ run, isSequence }, index) => (isSequence ? [] : [{ id: run.header.id, name: names.value[index] ?? '' }])),
  );
  /** Any run of a setup stands for it. */
  const baselineRow = computed(() => Math.max(0, baselineOf(setups.value, baseline.value)));
  /** What its reader needs, where people differ in it; it stands in the address. */
  const wishes = computed<Wishes>(() => {
    const chosenOf = <Key extends keyof Wishes>(key: Key): Wishes[Key] =>
      WISHES[key].find((each) => String(each) === query()[key]) ?? USUAL_WISHES[key];
    const usual = usualWindow(charges.value.map(({ run }) => run));
    const window = [...WISHES.window, usual].find((each) => String(each) === query().window) ?? usual;
    return { window, night: chosenOf('night'), loss: chosenOf('loss'), habit: chosenOf('habit') };
  });
  const question = computed(() =>
    questionOf(opened.value, shelf.everything(), {
      baseline: baseline.value,
      unit: unit.value,
      carriedOn: carriedOn.value,
      wishes: wishes.value,
    }),
  );
  /** The figures of the table by device, for the headline and the whole verdict. */
  const judgedGroups = computed(() => groupsOf(question.value, compared.value));
  const headline = computed(() =>
    headlineOf(
      question.value,
      { yardstick: yardstick.value.id, about: isAsked(yardstick.value.id) ? undefined : about.value },
      judgedGroups.value,
    ),
  );
  /** The same in a sentence: of devices that show no level, what came to pass. */
  const goal = computed(() => (yardstick.value.level === undefined ? yardstick.value.says : goalSays(rows.value[0]?.goal ?? FULL)));
  /** The figure of it, and how each setup stands to the baseline by that. */
  const against = computed(() => {
    const { id } = yardstick.value;
    const ids = [id, `level-${id}`, String(rows.value[0]?.goal)];
    return compared.value.find(({ measure }) => ids.includes(measure.id));
  });
  const standings = computed(() =>
    standingsOf(rows.value, names.value, baselineRow.value, yardstick.value.level === undefined ? against.value : undefined),
  );
  const unlike = computed(() => unlikeIn(withoutSequences(setups.value), names.value, typeof rows.value[0]?.goal === 'number'));

  const columns = computed(() => {
    const asked = asText(query().cols).split(',').filter(Boolean);
    const ids = asked.length > 0 ? asked : usualMeasures(measures.value, about.value, yardstick.value.id);
    return measures.value.filter(({ id }) => ids.includes(id));
  });
  const cellsOf = computed(() => new Map(compared.value.map(({ measure, cells: its }) => [measure.id, its])));
  const cells = computed(() => columns.value.map(({ id }) => cellsOf.value.get(id) ?? []));
  /** One run that holds several sources, or the same work on them, is compared by itself. */
  const isOneOfSeveral = computed(() => opened.value.length === 1 && underLoad(opened.value).length > 0);
  /** Where work or spot checks are what it is about, their tables come before what was charged. */
  const isGatheredFirst = computed(() => about.value === 'work' || charges.value.length < 2);
  const shown = computed<Shown>(
    () => (Object.keys(SHOWN) as Shown[]).find((each) => each === query().show) ?? (about.value === 'gains' ? 'bars' : 'curves'),
  );
  /** What bars can be drawn of, and what is: by what the method of the runs is about, at first. */
  const groups = computed(() => [...new Set(measures.value.filter(({ better }) => better).map((measure) => measure.group))]);
  const barGroup = computed(
    () =>
      groups.value.find((each) => each === query().bars) ?? groups.value.find((each) => each === BEGINS[about.value]) ?? groups.value[0],
  );
  /** In their order; a gain or a power that setups are set against each other by comes first. */
  const bars = computed(() => {
    const drawn = measures.value.filter((measure) => measure.group === barGroup.value && measure.better);
    return drawn.sort((one, other) => Number(other.id === yardstick.value.id) - Number(one.id === yardstick.value.id));
  });

  const title = computed(() => {
    const devices = [...new Set(opened.value.map(({ run }) => run.header.device.name))];
    const [first] = opened.value;
    if (opened.value.length < 2) return isOneOfSeveral.value && first ? `${first.run.header.device.name}, source by source` : 'Compare';
    return devices.length === 1
      ? `${opened.value.length} runs of ${devices[0] ?? ''}`
      : `${opened.value.length} runs, ${devices.length} devices`;
  });

  /** What stands about a picture of it: the answer, how sure it is, and of which day it is. */
  const pictureText = computed(() => ({
    title: title.value,
    lines: headline.value?.says ?? [],
    foot: [headline.value?.sure, dayText(Date.now(), { year: true })].filter(Boolean).join(' '),
  }));

  /** What the verdict is made of, and what was written of it. */
  const judged = computed(() => ({
    question: question.value,
    groups: judgedGroups.value,
    headline: headline.value,
    edits: comparisons.of(chosen.value)?.edits ?? [],
    pens: pens.value,
  }));
  /** Too few runs to compare, of which none is named in the address. */
  const hasTooFew = computed(() => lanes.records.length + logbook.summaries.length < 2 && chosen.value.length === 0);

  return {
    chosen,
    opened,
    missing,
    opening,
    charges,
    setups,
    units,
    unit,
    measures,
    yardsticks,
    yardstick,
    rows,
    names,
    rowOf,
    pens,
    baselines,
    baselineRow,
    question,
    headline,
    goal,
    against,
    standings,
    unlike,
    columns,
    cellsOf,
    cells,
    isOneOfSeveral,
    isGatheredFirst,
    shown,
    groups,
    barGroup,
    bars,
    title,
    pictureText,
    judged,
    hasTooFew,
  };
}
export type ComparedState = ReturnType<typeof useCompared>;
