import { speak } from '.';

/** The messages in each language but English: `de.json` beside `en.json` is all that one takes. */
const TRANSLATIONS = import.meta.glob<Record<string, string>>(['./*.json', '!./en.json'], { import: 'default' });

/** Speaks the first of the languages a person reads that there is a translation for, or English. */
export async function learn(
  wanted: readonly string[],
  translations: Readonly<Record<string, () => Promise<Record<string, string>>>> = TRANSLATIONS,
): Promise<void> {
  for (const language of wanted.map((tag) => tag.split('-')[0] ?? '')) {
    if (language === 'en') return;
    const load = translations[`./${language}.json`];
    if (!load) continue;
    speak(language, await load());
    document.documentElement.lang = language;
    return;
  }
}
