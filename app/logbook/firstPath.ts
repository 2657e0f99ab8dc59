/** What is there so far, as counts. */
export interface SoFar {
  devices: number;
  chargers: number;
  /** Runs that are live, and whether anything was read on one since it was plugged in. */
  live: number;
  isRead: boolean;
  finished: number;
}

/** A step of the short path from nothing to a verdict: what it is, what comes of it, and where one press leads. */
export interface PathStep {
  id: 'gear' | 'run' | 'read' | 'compare';
  title: string;
  says: string;
  act: string;
  to: string;
  isDone: boolean;
}

/** The path, and which of its steps is at hand: the first that is not done. */
export function firstPath({ devices, chargers, live, isRead, finished }: SoFar): { steps: PathStep[]; atHand: PathStep['id'] } {
  const isStocked = devices > 0 && chargers > 0;
  const steps: PathStep[] = [
    {
      id: 'gear',
      title: 'Gear',
      says: 'A device and a charger. A name each is enough.',
      act: devices === 0 ? 'Name a device and a charger' : chargers === 0 ? 'Add a charger' : 'See the bench',
      to: devices === 0 ? '/live/new' : chargers === 0 ? '/bench?shelf=charger&add=1' : '/bench',
      isDone: isStocked || live + finished > 0,
    },
    {
      id: 'run',
      title: 'Run',
      says: 'One key as you plug in. The clock counts from there.',
      act: 'Start a run',
      to: '/live/new',
      isDone: live + finished > 0,
    },
    {
      id: 'read',
      title: 'Read',
      says: 'When it calls, type what the display shows: 42 26.1w, Enter.',
      act: live > 0 ? 'Type a reading' : 'Try it in a rehearsal',
      to: live > 0 ? '/live' : '/live/rehearse',
      isDone: isRead || finished > 0,
    },
    {
      id: 'compare',
      title: 'Compare',
      says: 'Two finished runs tell which is faster, and how sure that is.',
      act: finished > 1 ? 'Compare the runs' : finished === 1 ? 'Start another run' : live > 0 ? 'See the run' : 'See how',
      to: finished > 1 ? '/compare' : finished === 1 ? '/live/new' : live > 0 ? '/live' : '/help',
      isDone: false,
    },
  ];
  return { steps, atHand: steps.find(({ isDone }) => !isDone)?.id ?? 'compare' };
}
