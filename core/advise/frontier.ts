/**
 * The frontier of two figures of which less is better. One beats another where it is surely better in one figure and not surely worse in the other;
 * what cannot be told apart in either beats nothing. As ties are not transitive, what is beaten by something that is itself beaten is not out by that:
 * nothing on the frontier is beaten by another on it, and everything off it is beaten by one that is on it.
 *
 * @param isBetter whether the first is surely better than the second, by the first figure and by the second
 * @returns indexes, in order
 * @see von Neumann & Morgenstern 1944, stable set, from memory.
 */
export function frontierOf(count: number, [first, second]: readonly [Beats, Beats]): number[] {
  const beats = (one: number, other: number) => (first(one, other) || second(one, other)) && !first(other, one) && !second(other, one);
  const on = new Set<number>();
  let open = Array.from({ length: count }, (_, index) => index);
  while (open.length > 0) {
    const free = open.filter((one) => !open.some((other) => other !== one && beats(other, one)));
    // Where each is beaten by another in turn, none is out.
    const next = free.length > 0 ? free : open;
    for (const each of next) on.add(each);
    open = open.filter((one) => !on.has(one) && !next.some((other) => beats(other, one)));
  }
  return [...on].sort((one, other) => one - other);
}

/** A setup as two of its figures against each other have it, each with the margin that is shown behind it. */
export interface Plotted {
  /** Its place among the setups of its group. */
  index: number;
  name: string;
  x: number;
  xMargin: number;
  y: number;
  yMargin: number;
  /** Whether nothing beats it. */
  isOn: boolean;
}

export type Beats = (one: number, other: number) => boolean;

/** What a choice costs each device at worst, beside the best that there is for it. */
export interface Regret<Choice> {
  choice: Choice;
  /** Of each device: its figure as a share above the best, 0 for the best itself. */
  each: number[];
  /** The most of them. */
  max: number;
}

/**
 * How much each choice costs the device that fares worst with it, least first: the choice of least regret.
 *
 * @param figures of each choice, one for each device, of which less is better; `Infinity` where it never gets there
 * @see Savage 1951, minimax regret, from memory.
 */
export function regrets<Choice>(choices: readonly Choice[], figures: (choice: Choice) => readonly number[]): Regret<Choice>[] {
  const all = choices.map((choice) => ({ choice, values: figures(choice) }));
  const devices = Math.max(0, ...all.map(({ values }) => values.length));
  const best = Array.from({ length: devices }, (_, device) => Math.min(...all.map(({ values }) => values[device] ?? Infinity)));
  return all
    .map(({ choice, values }) => {
      const each = best.map((min, device) => (Number.isFinite(min) && min > 0 ? (values[device] ?? Infinity) / min - 1 : 0));
      return { choice, each, max: Math.max(0, ...each) };
    })
    .sort((one, other) => one.max - other.max);
}
