let context: AudioContext | undefined;

/** Browsers let a page sound only after a key or a tap; this makes ready at the first one. */
export function readyChime(): void {
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume();
}

/** Whether the chime can be heard; before the first key or tap it cannot. */
export const canChime = (): boolean => context?.state === 'running';

/** Two short tones, the second higher: a reading is due. */
export function chime(): void {
  if (!context) return;
  for (const [index, frequency] of [660, 990].entries()) {
    const start = context.currentTime + index * 0.22;
    const tone = context.createOscillator();
    const loudness = context.createGain();
    tone.frequency.value = frequency;
    loudness.gain.setValueAtTime(0.0001, start);
    loudness.gain.exponentialRampToValueAtTime(0.3, start + 0.02);
    loudness.gain.exponentialRampToValueAtTime(0.0001, start + 0.2);
    tone.connect(loudness).connect(context.destination);
    tone.start(start);
    tone.stop(start + 0.22);
  }
}
