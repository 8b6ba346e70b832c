/** A short tone, for eyes that are on the jar. Silent where the browser gives no sound. */
let context: AudioContext | null = null;

export function playTone(hertz: number): void {
  try {
    context ??= new AudioContext();
    const start = context.currentTime;
    const [sound, volume] = [context.createOscillator(), context.createGain()];
    sound.frequency.value = hertz;
    volume.gain.setValueAtTime(0.15, start);
    volume.gain.exponentialRampToValueAtTime(0.001, start + 0.25);
    sound.connect(volume).connect(context.destination);
    sound.start(start);
    sound.stop(start + 0.25);
  } catch {
    // Sound is only a help; what it says stands on the sheet as well.
  }
}
