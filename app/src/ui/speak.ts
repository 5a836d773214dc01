/** The device's own speech. Voices that need a network are not used: most nights there is none. */
function voice(): SpeechSynthesisVoice | null {
  if (!('speechSynthesis' in globalThis)) return null;
  const own = speechSynthesis.getVoices().filter(({ localService }) => localService);
  return own.find(({ lang }) => lang.startsWith('en')) ?? null;
}

/** Whether the device has a voice for the words of this interface. Some find theirs a moment after the page stands: `onVoices` tells. */
export function canSpeak(): boolean {
  return voice() !== null;
}

/** Told when voices were found. Gives what ends it. */
export function onVoices(told: () => void): () => void {
  if (!('speechSynthesis' in globalThis)) return () => undefined;
  speechSynthesis.addEventListener('voiceschanged', told);
  return () => speechSynthesis.removeEventListener('voiceschanged', told);
}

/** Says this instead of what is being said: what is newer counts. */
export function speak(words: string): void {
  const own = voice();
  if (!own) return;
  speechSynthesis.cancel();
  const said = new SpeechSynthesisUtterance(words);
  said.voice = own;
  said.lang = own.lang;
  speechSynthesis.speak(said);
}
