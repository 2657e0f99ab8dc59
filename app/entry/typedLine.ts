import { ref, type Ref } from 'vue';
import { type Draft, type RunRecord } from '@core/ink';
import { parseEntryLine, type LineValues, type Moment, type ParsedLine } from '@core/quantity';
import { assessLine } from '@core/run';

/** What a typed line comes to: what to say, or what to write. */
export type Assessed = { says: string; isQuestion: boolean } | { draft: Draft; remark: string | undefined };

/**
 * The typed line, wherever one stands: read, held against the run, and asked about once where it is odd.
 *
 * @param text what is typed
 * @param mayBeEmpty whether a line without figures says enough: what a source does was chosen beside it
 */
export function useTypedLine(text: Ref<string>, mayBeEmpty = false) {
  /** What was asked about: entered once more as it stands, it is meant. */
  const askedAbout = ref('');

  /**
   * @param now      epoch milliseconds: when it counts as seen, unless the line says otherwise
   * @param markedAt epoch milliseconds: the moment that was marked for it
   * @param adjust   changes what was read before it is held against the run, or says what is amiss
   * @param weigh    holds it against the run: as a reading, or as the trial of what is in hand
   */
  function assess(
    run: RunRecord,
    now: Moment,
    markedAt?: Moment,
    adjust: (values: LineValues) => LineValues | string = (values) => values,
    weigh: typeof assessLine = assessLine,
  ): Assessed {
    const line: ParsedLine =
      mayBeEmpty && text.value.trim() === '' ? { ok: true, values: {} } : parseEntryLine(text.value, run.header.device);
    if (!line.ok) return { says: line.error, isQuestion: false };
    const values = adjust(line.values);
    if (typeof values === 'string') return { says: values, isQuestion: false };
    const assessed = weigh(values, run, now, markedAt);
    if (assessed.verdict === 'refuse') return { says: assessed.error, isQuestion: false };
    if (assessed.verdict === 'log') return { draft: assessed.draft, remark: assessed.remark };
    if (askedAbout.value === text.value) return { draft: assessed.draft, remark: undefined };
    askedAbout.value = text.value;
    return { says: assessed.question, isQuestion: true };
  }

  const forget = () => (askedAbout.value = '');

  return { assess, forget };
}
