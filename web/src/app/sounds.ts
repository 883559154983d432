/** Short sounds made of sine waves, so that no file has to be shipped. */
export type Sound = "bell" | "chime" | "knock" | "none";

interface Note {
  hertz: number;
  at_s: number;
  lasts_s: number;
}

const NOTES: Record<Exclude<Sound, "none">, readonly Note[]> = {
  bell: [
    { hertz: 880, at_s: 0, lasts_s: 1.2 },
    { hertz: 2217, at_s: 0, lasts_s: 0.5 },
    { hertz: 880, at_s: 0.7, lasts_s: 1.2 },
  ],
  chime: [
    { hertz: 523, at_s: 0, lasts_s: 0.4 },
    { hertz: 659, at_s: 0.2, lasts_s: 0.4 },
    { hertz: 784, at_s: 0.4, lasts_s: 0.8 },
  ],
  knock: [
    { hertz: 170, at_s: 0, lasts_s: 0.09 },
    { hertz: 170, at_s: 0.18, lasts_s: 0.09 },
    { hertz: 150, at_s: 0.36, lasts_s: 0.12 },
  ],
};
const LOUDNESS = 0.25;

let audio: AudioContext | undefined;

export function playSound(sound: Sound): void {
  if (sound === "none" || typeof AudioContext === "undefined") return;
  audio ??= new AudioContext();
  // A browser lets a page sound only after it was touched once.
  void audio.resume();
  for (const note of NOTES[sound]) {
    const from = audio.currentTime + note.at_s;
    const tone = audio.createOscillator();
    const volume = audio.createGain();
    tone.frequency.value = note.hertz;
    volume.gain.setValueAtTime(LOUDNESS, from);
    volume.gain.exponentialRampToValueAtTime(0.001, from + note.lasts_s);
    tone.connect(volume).connect(audio.destination);
    tone.start(from);
    tone.stop(from + note.lasts_s);
  }
}
