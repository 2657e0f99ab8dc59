// First: it puts the database in place that the others look for as they load.
import { emptyBrowser } from '../ledger/testBrowser';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Draft } from '@core/ink';
import { exampleHeader } from '../../core/ink/example';
import { undoNote, undoLast } from '../kit/undo';
import { save } from '../ledger/acts';
import { rowOf } from '../ledger/shapes';
import { useComparisons } from './comparisons';
import { useInkActs } from './inkActs';
import { useLanes } from './lanes';
import { useLogbook } from './runs';
import { useShelf } from './shelf';

/** What each kind of act leaves when it is undone: as it was, or a sentence. */

let plugInAt: number;
let id: string;
beforeEach(async () => {
  await emptyBrowser();
  setActivePinia(createPinia());
  for (let left = 0; left < 20; left += 1) await undoLast();
  plugInAt = Date.now() - 720_000;
  id = `run-${Math.random().toString(36).slice(2)}`;
});
const level = (percent: number, minutes: number): Draft => ({ kind: 'reading', at: plugInAt + minutes * 60_000, percent });
async function started() {
  const lanes = useLanes();
  await lanes.start(exampleHeader({ id, plugInAt }), [level(2, 0)]);
  return lanes;
}
const levels = () => useLanes().records[0]?.readings.map(({ reading }) => reading.percent);

describe('undo', () => {
  it('strikes a reading that was logged, and brings one back that was struck', async () => {
    await started();
    const acts = useInkActs();
    await acts.writeLive(id, level(12, 5));
    const target = useLanes().records[0]?.entries.at(-1)?.id ?? '';
    await acts.writeLive(id, { kind: 'strike', at: plugInAt + 360_000, target, reason: 'slip' }, 'Struck 12 %');
    expect(levels()).toEqual([2]);
    expect(undoNote.value?.says).toBe('Struck 12 %.');
    await undoLast();
    expect(levels()).toEqual([2, 12]);
    await undoLast();
    expect(levels()).toEqual([2]);
    // Nothing is deleted: all of it stands in the ink.
    expect(useLanes().records[0]?.entries).toHaveLength(5);
  });

  it('puts discarded runs back, and discards again what was put back', async () => {
    const lanes = await started();
    await lanes.stop(id, { kind: 'stop', at: plugInAt + 600_000, because: 'window over' });
    const [acts, logbook] = [useInkActs(), useLogbook()];
    await acts.discard([id]);
    expect(logbook.summaries).toEqual([]);
    await undoLast();
    expect(logbook.summaries.map((each) => each.id)).toEqual([id]);
    await acts.discard([id]);
    await acts.putBack(id);
    await undoLast();
    expect(logbook.summaries).toEqual([]);
  });

  it('refuses where it was struck since, or the run is gone', async () => {
    await started();
    const acts = useInkActs();
    await acts.writeLive(id, level(12, 5));
    const target = useLanes().records[0]?.entries.at(-1)?.id ?? '';
    // From another tab, say.
    await useLanes().write(id, { kind: 'strike', at: plugInAt + 360_000, target, reason: 'slip' });
    await undoLast();
    expect(undoNote.value).toEqual({ says: '12 % was struck since. Nothing was undone.', canUndo: false });
    expect(levels()).toEqual([2]);
  });

  it('brings gear back as it was: added, changed, retired, removed; and not over what was changed since', async () => {
    const shelf = useShelf();
    const cobble = { id: 'cobble', name: 'Cobble 20', kind: 'adapter' as const, watts: 20 };
    await shelf.put({ shelf: 'charger', gear: cobble });
    await shelf.put({ shelf: 'charger', gear: { ...cobble, watts: 25 } });
    await shelf.retire({ shelf: 'charger', gear: { ...cobble, watts: 25 } });
    expect(undoNote.value?.says).toBe('Retired Cobble 20.');
    await shelf.remove({ shelf: 'charger', gear: cobble });
    expect(shelf.all).toEqual([]);
    await undoLast();
    expect(shelf.all[0]?.gear).toMatchObject({ watts: 25, retired: true });
    await undoLast();
    expect(shelf.chargers).toMatchObject([{ watts: 25 }]);
    await shelf.put({ shelf: 'charger', gear: { ...cobble, watts: 30 } });
    await undoLast();
    await undoLast();
    expect(shelf.chargers).toMatchObject([{ watts: 20 }]);
    await undoLast();
    expect(shelf.all).toEqual([]);
    // What another tab wrote since stays.
    await shelf.put({ shelf: 'charger', gear: cobble });
    await save([rowOf('charger', { ...cobble, watts: 65 })]);
    await shelf.load();
    await undoLast();
    expect(undoNote.value).toEqual({ says: 'Cobble 20 was changed since. Nothing was undone.', canUndo: false });
    expect(shelf.chargers).toMatchObject([{ watts: 65 }]);
  });

  it('takes back a sentence that was edited', async () => {
    const comparisons = useComparisons();
    const made = { name: 'Van chargers', runs: ['a', 'b'] };
    const edited = (text: string) => ({ ...made, edits: [{ need: 'overnight', text, made: 'Overnight: Cobble 20.' }] });
    await comparisons.save(edited('Cobble 20 for nights.'));
    const before = JSON.stringify(comparisons.all[0]);
    await comparisons.save(edited('Cobble 20, and nothing else.'));
    await undoLast();
    expect(JSON.stringify(comparisons.all[0])).toBe(before);
  });
});
