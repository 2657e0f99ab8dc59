import { useDebounceFn } from '@vueuse/core';
import { format } from 'date-fns';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import {
  agendaOf,
  calendarSchema,
  gearNames,
  schedule,
  lowerBound,
  movesOf,
  oneAfterAnother,
  restored,
  studySetupsOf,
  tallyOf,
  usualCalendar,
  type Calendar,
  type Placed,
  type Study,
} from '@core/plan';
import { ValidationError } from 'yup';
import { did } from '../kit/undo';
import { useShelf } from '../logbook/shelf';
import { useStudies } from '../logbook/studies';
import { troubleOf } from '../logbook/trouble';
import { usePlanner } from './planner';

/** The calendar of a study as it is being made: its hours and pins as typed, the plan found for them, and what moved from the plan that is kept. */
export function useCalendarDraft(id: string) {
  const studies = useStudies();
  const shelf = useShelf();
  const { found, isBusy, plan, stop } = usePlanner();
  const now = Math.ceil(Date.now() / 60_000) * 60;

  const study = shallowRef<Study>();
  const draft = shallowRef<Calendar>(usualCalendar(format(Date.now(), 'yyyy-MM-dd')));
  const isLoaded = ref(false);
  const trouble = ref('');
  /** Raised when the fields are to begin afresh. */
  const edition = ref(0);

  onMounted(async () => {
    await studies.load();
    study.value = studies.all.find((each) => each.id === id);
    if (study.value?.calendar) draft.value = study.value.calendar;
    edition.value += 1;
    isLoaded.value = true;
  });

  const gear = computed(() => shelf.everything());
  const name = computed(() => gearNames(gear.value));
  const setups = computed(() => (study.value ? studySetupsOf(study.value, gear.value) : []));
  const errors = computed(() => {
    try {
      calendarSchema.validateSync(draft.value, { abortEarly: false });
      return [];
    } catch (error) {
      if (error instanceof ValidationError) return error.errors;
      throw error;
    }
  });
  const scheduled = computed(() =>
    study.value && errors.value.length === 0
      ? schedule({ ...study.value, calendar: draft.value }, setups.value, gear.value, studies.made(id), now)
      : undefined,
  );
  const isSound = computed(() => scheduled.value?.obstacles.length === 0 && scheduled.value.problem.jobs.length > 0);
  /** The places of the runs: as kept, as long as they hold; else as found. */
  const kept = shallowRef<Placed[]>();
  const placed = computed(() => (isSound.value ? (kept.value ?? found.value?.placed ?? []) : []));
  const agenda = computed(() => (scheduled.value ? agendaOf(scheduled.value, placed.value) : []));
  const laidBefore = computed(() => study.value?.calendar?.laid ?? []);
  const moves = computed(() => movesOf(laidBefore.value, agenda.value));
  const moved = computed(() => new Set(moves.value.map(({ appointment }) => appointment.key)));
  const isKept = computed(() => draft.value === study.value?.calendar && kept.value !== undefined);

  function planAnew(): void {
    stop();
    kept.value = undefined;
    const { value: lay } = scheduled;
    if (!lay || !isSound.value) return;
    const times = new Map(laidBefore.value.map(({ run, at }) => [run, at / 1000]));
    if (draft.value === study.value?.calendar) kept.value = restored(lay.problem, times);
    if (kept.value) return;
    found.value = undefined;
    const order =
      times.size > 0 ? [...lay.order].sort((one, other) => (times.get(one) ?? Infinity) - (times.get(other) ?? Infinity)) : lay.order;
    plan(lay.problem, order, times);
  }
  watch(scheduled, useDebounceFn(planAnew, 250));

  let isOpen = true;
  onBeforeUnmount(() => (isOpen = false));
  function change(part: Partial<Calendar>): void {
    const before = draft.value;
    const after = { ...before, ...part };
    draft.value = after;
    did({
      says: part.pins ? 'Moved a run in the calendar' : 'Changed the calendar',
      about: `calendar/${id}/${Object.keys(part).join()}`,
      refuses: () => {
        if (!isOpen) return 'That calendar is closed; what was not saved of it is gone. Nothing was undone.';
        return draft.value === after ? undefined : 'The calendar was changed since. Nothing was undone.';
      },
      undo: () => {
        draft.value = before;
        edition.value += 1;
      },
    });
  }
  // Undone from elsewhere, or saved in another tab.
  watch(
    () => studies.all.find((each) => each.id === id),
    (stored) => {
      if (!isLoaded.value || !stored || JSON.stringify(stored) === JSON.stringify(study.value)) return;
      const isAsSaved = draft.value === study.value?.calendar;
      study.value = stored;
      if (isAsSaved) putBack();
    },
  );
  const loose = (key: string) => change({ pins: draft.value.pins.filter(({ run }) => run !== key) });
  const pin = (key: string, at: number) =>
    change({ pins: [...draft.value.pins.filter(({ run }) => run !== key), { run: key, at: at * 1000 }] });
  function putBack(): void {
    draft.value = study.value?.calendar ?? usualCalendar(draft.value.from);
    edition.value += 1;
  }

  async function keep(): Promise<void> {
    if (!study.value) return;
    trouble.value = '';
    const calendar = { ...draft.value, laid: agenda.value.map(({ key, at }) => ({ run: key, at: at * 1000 })) };
    try {
      await studies.put({ ...study.value, calendar });
      study.value = { ...study.value, calendar };
      draft.value = calendar;
    } catch (error) {
      trouble.value = troubleOf(error, 'The calendar was not saved.');
    }
  }

  const finish = computed(() => Math.max(...agenda.value.map(({ end }) => end)));
  const bound = computed(() => (scheduled.value && isSound.value ? lowerBound(scheduled.value.problem) : undefined));
  const tally = computed(() => (scheduled.value ? tallyOf(placed.value, scheduled.value.problem) : undefined));
  const alone = computed(() => {
    const { value: lay } = scheduled;
    const one = lay && isSound.value ? oneAfterAnother(lay) : undefined;
    return lay && one && { ...tallyOf(one, lay.problem), finish: Math.max(...one.map(({ end }) => end)) };
  });
  const progress = computed(() => (found.value ? (100 * found.value.tried) / found.value.of : 0));

  return {
    study,
    draft,
    edition,
    isLoaded,
    trouble,
    gear,
    name,
    setups,
    errors,
    scheduled,
    agenda,
    laidBefore,
    moves,
    moved,
    isKept,
    isBusy,
    progress,
    finish,
    bound,
    tally,
    alone,
    stop,
    change,
    loose,
    pin,
    putBack,
    keep,
  };
}
