import { defineStore } from 'pinia';
import { shallowReactive } from 'vue';
import { usualFeed } from '@core/bench';
import { sourceKey, TRIAL_STATES, type RunRecord, type Source, type TrialState } from '@core/ink';
import type { InHand } from '@core/run';
import { useShelf } from '../logbook/shelf';

/** What is in hand in the spot checks that are going on: its card and the due line log to the same. */
export const useSitting = defineStore('sitting', () => {
  const shelf = useShelf();
  /** The source that was picked out of turn, by run. */
  const picked = shallowReactive(new Map<string, Source>());
  const states = shallowReactive(new Map<string, TrialState>());

  /** The sources to try, in order; of a spot check that was begun before there were lists, its chargers off the shelf. */
  function listOf({ list, header }: RunRecord): Source[] {
    if (list) return list;
    return (header.list ?? []).flatMap((id) => {
      const charger = shelf.chargers.find((each) => each.id === id);
      return charger ? [{ charger, feed: usualFeed(charger, shelf.chargers, shelf.cables) }] : [];
    });
  }

  /** The source picked, else the first that was not tried. */
  function inHand(run: RunRecord): InHand | undefined {
    const tried = new Set(run.trials.map((trial) => sourceKey(trial.source)));
    const source = picked.get(run.header.id) ?? listOf(run).find((each) => !tried.has(sourceKey(each)));
    return source && { source, state: states.get(run.header.id) ?? 'awake' };
  }

  const pick = (runId: string, source: Source) => picked.set(runId, source);
  /** This one was logged: the next of the list is in hand, unless another was picked meanwhile. */
  function goOn(runId: string, logged: Source): void {
    const source = picked.get(runId);
    if (source && sourceKey(source) === sourceKey(logged)) picked.delete(runId);
  }

  /** The next state of the device: awake, asleep, off, and awake again. */
  function turnState(runId: string): void {
    const at = TRIAL_STATES.indexOf(states.get(runId) ?? 'awake');
    states.set(runId, TRIAL_STATES[(at + 1) % TRIAL_STATES.length] ?? 'awake');
  }

  return { listOf, inHand, pick, goOn, turnState };
});
