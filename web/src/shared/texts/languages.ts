import { speak } from '.';

/** A catalogue for each language but English: `de.json` beside `en.json` is all that one takes. */
const CATALOGUES = import.meta.glob<Record<string, string>>(['./*.json', '!./en.json'], { import: 'default' });

/** Speaks the first of the languages a person reads that there is a catalogue for, or English. */
export async function learn(
  wanted: readonly string[],
  catalogues: Readonly<Record<string, () => Promise<Record<string, string>>>> = CATALOGUES,
): Promise<void> {
  for (const language of wanted.map((tag) => tag.split('-')[0] ?? '')) {
    if (language === 'en') return;
    const load = catalogues[`./${language}.json`];
    if (!load) continue;
    speak(language, await load());
    document.documentElement.lang = language;
    return;
  }
}
