/** Whether the browser can say a name aloud. */
export const canSpeak = (): boolean => 'speechSynthesis' in window;

/** A name as one would say it: hyphens are pauses. */
export function say(text: string): void {
  if (!canSpeak()) return;
  const spoken = new SpeechSynthesisUtterance(text.replaceAll('-', ' '));
  spoken.lang = 'en';
  spoken.rate = 0.9;
  window.speechSynthesis.cancel();
  window.speechSynthesis.speak(spoken);
}
