/** Short tones, told apart with eyes on the fiber: by height, number and length. Hz and ms; 0 Hz is a rest. */
const tones = {
  holds: [[880, 110]],
  redo: [
    [330, 170],
    [0, 70],
    [330, 170],
  ],
  owner: [
    [520, 110],
    [660, 110],
    [520, 110],
  ],
  fuse: [[660, 60]],
  before: [
    [440, 90],
    [0, 50],
    [440, 90],
  ],
  ask: [
    [600, 110],
    [800, 160],
  ],
  lost: [[260, 450]],
} as const satisfies Readonly<Record<string, readonly (readonly [hz: number, ms: number])[]>>;
export type Tone = keyof typeof tones;

/** The same for a pocket. */
const buzzes: Readonly<Record<Tone, readonly number[]>> = {
  holds: [30],
  redo: [120, 60, 120],
  owner: [60, 40, 60, 40, 60],
  fuse: [20],
  before: [60, 40, 60],
  ask: [40, 40, 120],
  lost: [300],
};

let context: AudioContext | null = null;

/** Browsers let a page sound only after somebody touched it: called by what switches tones on, and with each touch after. */
export function readyToSound(): void {
  context ??= new AudioContext();
  if (context.state === 'suspended') void context.resume();
}

export function sound(tone: Tone): void {
  if (!context || context.state !== 'running') return;
  let at = context.currentTime;
  for (const [hz, ms] of tones[tone]) {
    const end = at + ms / 1000;
    if (hz > 0) {
      const oscillator = new OscillatorNode(context, { frequency: hz });
      const gain = new GainNode(context, { gain: 0 });
      // Without a slope at both ends it clicks.
      gain.gain.setValueAtTime(0, at);
      gain.gain.linearRampToValueAtTime(0.4, at + 0.01);
      gain.gain.setValueAtTime(0.4, end - 0.015);
      gain.gain.linearRampToValueAtTime(0, end);
      oscillator.connect(gain).connect(context.destination);
      oscillator.start(at);
      oscillator.stop(end);
    }
    at = end;
  }
}

export function buzzOf(tone: Tone): number[] {
  return [...buzzes[tone]];
}
