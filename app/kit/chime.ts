let context: AudioContext | undefined;

/** How loud a call is, and how often it is sounded. */
export const LOUDNESS = ['off', 'soft', 'clear', 'loud'] as const;
export type Loudness = (typeof LOUDNESS)[number];
const CALLS: Readonly<Record<Loudness, { gain: number; times: number }>> = {
  off: { gain: 0, times: 0 },
  soft: { gain: 0.08, times: 1 },
  clear: { gain: 0.3, times: 1 },
  loud: { gain: 0.9, times: 3 },
};

/** Browsers let a page sound only after a key or a tap; this makes ready at the first one. */
export function readyChime(): void {
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume();
}

/** Whether the chime can be heard; before the first key or tap it cannot. */
export const canChime = (): boolean => context?.state === 'running';

/** Two short tones, the second higher: a reading is due. */
export function chime(loudness: Loudness): void {
  const { gain, times } = CALLS[loudness];
  for (let time = 0; time < times; time += 1)
    for (const [index, frequency] of [660, 990].entries()) tone(frequency, time * 0.6 + index * 0.22, gain);
}

function tone(frequency: number, after: number, gain: number): void {
  if (!context) return;
  const start = context.currentTime + after;
  const sound = context.createOscillator();
  const volume = context.createGain();
  sound.frequency.value = frequency;
  volume.gain.setValueAtTime(0.0001, start);
  volume.gain.exponentialRampToValueAtTime(gain, start + 0.02);
  volume.gain.exponentialRampToValueAtTime(0.0001, start + 0.2);
  sound.connect(volume).connect(context.destination);
  sound.start(start);
  sound.stop(start + 0.22);
}
