import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { entrySays, momentOf, type Entry } from '@core/ink';
import { spell, writeEntryLine, type LineValues } from '@core/quantity';
import { assessLine, assessTrial, lastEntered, type InHand } from '@core/run';
import { wallNow } from '../kit/clock';
import { save } from '../ledger/acts';
import { keyOf } from '../ledger/keys';
import { remembered } from '../ledger/readAhead';
import { useInkActs } from '../logbook/inkActs';
import { useLanes } from '../logbook/lanes';
import { troubleOf } from '../logbook/trouble';
import { useSitting } from './sitting';
import { useTypedLine } from './typedLine';

/** How long storage may take to answer before the line says so, in milliseconds. */
const SILENT = 8000;
const STILL_WAITING = 'Not stored yet: the storage of this browser does not answer. It is logged once it does; save a file to be safe.';

/** Moments that were marked and whose values are still to come, epoch milliseconds by run. Kept as one value: all of them or none. */
type Marks = Record<string, number>;
const MARKS = 'marks';

/** What the line says back. `trouble` offers a file. */
interface Answer {
  kind: 'logged' | 'question' | 'error' | 'trouble';
  text: string;
}

/** The due line: whose turn it is, what is being typed, the moment marked for it, and what came of it. */
export const useDueLine = defineStore('dueLine', () => {
  const lanes = useLanes();
  const acts = useInkActs();
  const sitting = useSitting();
  const text = ref('');
  /** Moments that were marked, by lane. */
  const marks = shallowRef<Marks>({});
  /** The lane picked by hand; without one, the lane that is due first. */
  const picked = ref<string>();
  /** The lane picked by hand before what was logged on it. */
  const lastPicked = ref<string>();
  const striking = shallowRef<{ runId: string; entry: Entry }>();
  const answer = ref<Answer>();
  const typed = useTypedLine(text);
  /** The lane that was logged on last: a slip is seen right after, when the line has moved on. */
  const lastLogged = ref<string>();
  /** What is being stored. */
  const storing = shallowRef<Promise<void>>();
  const busy = computed(() => storing.value !== undefined);

  const liveOf = (id: string | undefined) => lanes.records.find(({ header }) => header.id === id);
  /** Lanes that another tab writes come last: nothing can be logged on them here. */
  const mostUrgent = () => lanes.due.find((each) => lanes.isMine(each.runId)) ?? lanes.due[0];
  /** The lane picked, or one whose moment was marked; then the most urgent; and where none wants a reading, the one picked last. */
  const runId = computed(() => {
    const marked = lanes.records.find(({ header }) => marks.value[header.id] !== undefined);
    const chosen = liveOf(striking.value?.runId ?? picked.value);
    const first = lanes.records.find(({ header }) => lanes.isMine(header.id)) ?? lanes.records[0];
    return (chosen ?? marked ?? liveOf(mostUrgent()?.runId) ?? liveOf(lastPicked.value) ?? first)?.header.id;
  });
  const markedAt = computed(() => (runId.value === undefined ? undefined : marks.value[runId.value]));
  const record = computed(() => liveOf(runId.value));
  const due = computed(() => lanes.due.find((each) => each.runId === runId.value));

  function pick(id: string): void {
    picked.value = id;
    answer.value = undefined;
  }

  /** Brings back what was marked before the page was left. */
  async function load(): Promise<void> {
    const kept = Object.entries((await remembered<{ marks: Marks }>(MARKS))?.marks ?? {}).filter(([id]) =>
      lanes.records.some(({ header }) => header.id === id),
    );
    marks.value = { ...Object.fromEntries(kept), ...marks.value };
  }

  function setMarks(changed: Marks): void {
    marks.value = changed;
    save([[keyOf('setting', MARKS), { marks: changed }]]).catch((trouble: unknown) => {
      answer.value = { kind: 'trouble', text: troubleOf(trouble, 'The mark holds only as long as this page is open.') };
    });
  }

  /** Freezes this moment for the lane; the values may be typed after. */
  function mark(): void {
    if (!record.value) return;
    picked.value = record.value.header.id;
    answer.value = undefined;
    setMarks({ ...marks.value, [record.value.header.id]: momentOf(record.value, wallNow()) });
  }

  /** Freezes this moment for all lanes of this tab: the line then asks for one after another. */
  function markAll(): void {
    const wall = wallNow();
    picked.value = undefined;
    answer.value = undefined;
    setMarks(
      Object.fromEntries(
        lanes.inOrder.flatMap(({ record, mine }) => (mine.value ? [[record.value.header.id, momentOf(record.value, wall)]] : [])),
      ),
    );
  }

  function unmark(id = runId.value ?? ''): void {
    const { [id]: taken, ...left } = marks.value;
    if (taken !== undefined) setMarks(left);
  }

  /** Says what was stored from elsewhere. What is being typed meanwhile stays. */
  function say(what: string): void {
    if (!text.value && !striking.value) clear();
    answer.value = { kind: 'logged', text: what };
  }

  /** The line as it is submitted. */
  const asSubmitted = (id: string) => ({ id, line: text.value, lane: picked.value, mark: marks.value[id] });

  /** What was typed on while something was being stored. */
  const typedOn = (submitted: string): string => (text.value.startsWith(submitted) ? text.value.slice(submitted.length) : text.value);

  /** Clears the line of what was submitted and is stored now; what was typed on, picked or marked meanwhile stays. */
  function clearOf({ id, line, lane, mark }: ReturnType<typeof asSubmitted>): void {
    if (marks.value[id] === mark) unmark(id);
    if (picked.value === lane) [lastPicked.value, picked.value] = [lane ?? lastPicked.value, undefined];
    [text.value, answer.value] = [typedOn(line), undefined];
    typed.forget();
  }

  /** Clears what is half done. @returns whether there was anything to clear */
  function clear(): boolean {
    const any = Boolean(text.value || markedAt.value || striking.value || answer.value || picked.value);
    unmark();
    [text.value, striking.value, answer.value, picked.value, lastPicked.value] = ['', undefined, undefined, undefined, undefined];
    typed.forget();
    return any;
  }

  /**
   * Begins striking an entry: the line then asks why. Without one named it is the last thing that a person entered on the lane picked, else on the
   * lane logged on last.
   */
  function beginStrike(of?: string, named?: Entry): void {
    // What is being stored just now may be what is meant, and what is typed already is why.
    if (storing.value) {
      void storing.value.then(() => {
        // What was refused or not stored cannot be meant.
        if (answer.value?.kind !== 'logged') return;
        const why = text.value;
        beginStrike(of, named);
        text.value = why;
      });
      return;
    }
    const id = of ?? picked.value ?? liveOf(lastLogged.value)?.header.id ?? runId.value;
    const entry = named ?? lastOf(id);
    clear();
    if (!id || !entry) {
      answer.value = { kind: 'error', text: 'Nothing to strike yet on this lane. Log a reading first.' };
      return;
    }
    picked.value = id;
    striking.value = { runId: id, entry };
  }

  function lastOf(id: string | undefined): Entry | undefined {
    const run = liveOf(id);
    return run && lastEntered(run);
  }

  /** Logs the line, or strikes what was to be struck. Says so only when it is stored. */
  function submit(): Promise<void> {
    if (busy.value || !record.value) return Promise.resolve();
    storing.value = submitted().finally(() => (storing.value = undefined));
    return storing.value;
  }

  async function submitted(): Promise<void> {
    const slow = setTimeout(() => (answer.value = { kind: 'trouble', text: STILL_WAITING }), SILENT);
    try {
      await (striking.value ? strike(striking.value) : log());
    } catch (trouble) {
      answer.value = { kind: 'trouble', text: troubleOf(trouble) };
    } finally {
      clearTimeout(slow);
    }
  }

  async function log(): Promise<void> {
    const run = record.value;
    if (!run) {
      answer.value = { kind: 'error', text: 'Nothing is live. Start a run first.' };
      return;
    }
    const given = asSubmitted(run.header.id);
    const hand = run.header.list && sitting.inHand(run);
    const assessed = typed.assess(run, momentOf(run, wallNow()), markedAt.value, undefined, (values, ...rest) =>
      run.header.list && !isOnlyNote(values) ? trialOf(hand, values, ...rest) : assessLine(values, ...rest),
    );
    if ('says' in assessed) {
      answer.value = { kind: assessed.isQuestion ? 'question' : 'error', text: assessed.says };
      return;
    }
    const { draft, remark } = assessed;
    await acts.writeLive(run.header.id, draft);
    lastLogged.value = run.header.id;
    const seen = spell((draft.at - run.header.plugInAt) / 1000, 1);
    clearOf(given);
    if (draft.kind === 'trial') {
      sitting.goOn(run.header.id, draft.source);
      answer.value = { kind: 'logged', text: `Logged at ${seen} on ${run.header.device.name}: ${entrySays(draft)}, ${draft.state}.` };
      return;
    }
    const full = draft.kind === 'reading' && draft.percent === 100 ? ' It shows 100 %: press S when you stop.' : '';
    answer.value = { kind: 'logged', text: `Logged at ${seen} on ${run.header.device.name}. ${remark ?? ''}${full}`.trim() };
  }

  async function strike({ runId: id, entry }: { runId: string; entry: Entry }): Promise<void> {
    const run = record.value;
    const given = asSubmitted(id);
    const reason = given.line.trim();
    if (!run || !reason) {
      answer.value = { kind: 'error', text: 'Say why it is struck, in a word or two; it stays on the strip, crossed out.' };
      return;
    }
    await acts.writeLive(id, { kind: 'strike', at: momentOf(run, wallNow()), target: entry.id, reason }, `Struck ${entrySays(entry)}`);
    const isStillHere = picked.value === given.lane;
    clearOf(given);
    striking.value = undefined;
    if (isStillHere) {
      picked.value = id;
      text.value ||= again(entry, run.header.plugInAt);
    }
    const next = text.value ? 'Write it again as it should be, or press Esc.' : 'Enter it again as it should be, with V.';
    answer.value = { kind: 'logged', text: `Struck: ${entrySays(entry)}. ${entry.kind === 'event' || text.value ? next : ''}`.trim() };
  }

  return { text, markedAt, striking, answer, busy, runId, record, due, pick, load, mark, markAll, say, clear, beginStrike, submit };
});

/** What is typed on the due line of a spot check is the trial of what is in hand. */
const trialOf = (hand: InHand | undefined, ...rest: Parameters<typeof assessLine>) =>
  hand
    ? assessTrial(rest[0], hand, rest[1], rest[2], rest[3])
    : ({ verdict: 'refuse', error: 'All on the list were tried: pick one of them first, or add another.' } as const);

const isOnlyNote = ({ note, ...figures }: LineValues) => note !== undefined && Object.keys(figures).length === 0;

/** What was struck as a line that says it once more; empty where no line does. */
function again(entry: Entry, plugInAt: number): string {
  const seen = (entry.at - plugInAt) / 1000;
  if (entry.kind === 'reading') return writeEntryLine({ ...entry, seen });
  if (entry.kind === 'trial') return writeEntryLine({ ...entry, note: entry.remark, seen });
  return entry.kind === 'note' ? writeEntryLine({ note: entry.text }) : '';
}
