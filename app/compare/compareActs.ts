import { computed, ref } from 'vue';
import type { LocationQuery } from 'vue-router';
import { type Finding, type Wishes } from '@core/advise';
import { type Comparison, type Edit } from '@core/compare';
import { NotPlannable } from '@core/plan';
import { report } from '../kit/failures';
import { dayText } from '../kit/dates';
import { useComparisons } from '../logbook/comparisons';
import { planToSettle } from '../logbook/settling';
import { troubleOf } from '../logbook/trouble';
import { asText, type ComparedState } from './compared';

/** What can be done with a comparison: chosen anew, saved and opened again, written in one’s own words, and planned on. */
export function useCompareActs(
  { chosen, charges, title }: ComparedState,
  query: () => LocationQuery,
  ask: (some: Record<string, string | undefined>) => void,
  go: (path: string) => Promise<unknown>,
) {
  const comparisons = useComparisons();
  const choose = (ids: string[]) => {
    ask({ runs: ids.join('.'), base: undefined, cols: undefined });
  };

  /** What is saved of it under a name. */
  const asSaved = (called: string): Omit<Comparison, 'id' | 'at' | 'schema'> => {
    const { base, level: at, unit: as, cols, show, bars: drawn } = query();
    const chosenColumns = asText(cols).split(',').filter(Boolean);
    return {
      name: called,
      runs: chosen.value,
      base: asText(base) || undefined,
      level: asText(at) || undefined,
      unit: asText(as) || undefined,
      columns: chosenColumns.length > 0 ? chosenColumns : undefined,
      show: asText(show) || undefined,
      bars: asText(drawn) || undefined,
      edits: comparisons.of(chosen.value)?.edits,
    };
  };
  /** A piece of it: what is chosen here goes with it. */
  const toWriteUp = computed(() => {
    const { base, level, unit } = asSaved('');
    const saved = comparisons.of(chosen.value)?.name;
    return {
      name: saved ?? title.value,
      source: {
        runs: chosen.value,
        base,
        level,
        unit,
        from: saved === undefined ? `a comparison of ${title.value}` : `the comparison ${saved}`,
      },
    };
  });
  const save = (called: string) => comparisons.save(asSaved(called));
  function openSaved({ runs, base, level: at, unit: as, columns: cols = [], show, bars: drawn }: Comparison): void {
    ask({ runs: runs.join('.'), base, level: at, unit: as, cols: cols.length > 0 ? cols.join(',') : undefined, show, bars: drawn });
  }
  const remove = ({ id }: Comparison) => comparisons.remove(id).catch(report);
  /** Writes a sentence of the verdict in one’s own words, or takes them back. They belong to the comparison, which is saved with them. */
  async function edit(need: string, made: Omit<Edit, 'need'> | undefined): Promise<void> {
    const known = comparisons.of(chosen.value);
    const others = (known?.edits ?? []).filter((each) => each.need !== need);
    const edits = made ? [...others, { need, ...made }] : others;
    const saved = known ?? asSaved(comparisons.freeName(`${title.value}, ${dayText(Date.now())}`));
    await comparisons.save({ ...saved, edits: edits.length > 0 ? edits : undefined }).catch(report);
  }
  /** Why nothing was planned. */
  const trouble = ref('');
  /** Puts the runs that would settle something into a plan, and goes there. */
  async function plan({ runs: wanted }: NonNullable<Finding['settle']>): Promise<void> {
    trouble.value = '';
    try {
      const starts = charges.value.flatMap(({ figures }) => figures.startLevel ?? []);
      const studies = await planToSettle(
        wanted,
        charges.value.map(({ run }) => run),
        starts.length > 0 ? Math.min(...starts) : undefined,
      );
      await go(studies.length === 1 ? `/plan/${studies[0] ?? ''}` : '/plan');
    } catch (error) {
      trouble.value = error instanceof NotPlannable ? error.message : troubleOf(error, 'Nothing was planned.');
    }
  }

  const wish = (some: Partial<Wishes>) => {
    ask(Object.fromEntries(Object.entries(some).map(([key, value]) => [key, String(value)])));
  };
  return { choose, save, openSaved, remove, edit, trouble, plan, toWriteUp, wish };
}
