import { IntlMessageFormat } from 'intl-messageformat';
import { createElement, Fragment, type ReactNode } from 'react';

import { numbers } from './chosen';

export { chooseLocale, numbers } from './chosen';

type Value = string | number | null | undefined;
/** What stands between `<b>` and `</b>` goes through `b`. */
type Rich = Value | ReactNode | ((inside: ReactNode) => ReactNode);

let spoken = 'en';
let translated: Readonly<Record<string, string>> = {};
let made = new Map<string, string | IntlMessageFormat>();

/** Whose plurals are those of the texts, and whose numbers are those the person chose. */
const formatters = {
  getNumberFormat: (_: unknown, options?: object) => numbers(options),
  getDateTimeFormat: (...given: ConstructorParameters<typeof Intl.DateTimeFormat>) => new Intl.DateTimeFormat(...given),
  getPluralRules: (...given: ConstructorParameters<typeof Intl.PluralRules>) => new Intl.PluralRules(...given),
};

function formatOf(message: string, ignoreTag: boolean): string | IntlMessageFormat {
  const key = ignoreTag ? message : `<>${message}`;
  let format = made.get(key);
  if (format === undefined) {
    const said = translated[message] ?? message;
    // What has nothing to fill in is as it stands.
    const plain = !/[{']/.test(said) && (ignoreTag || !said.includes('<'));
    format = plain ? said : new IntlMessageFormat(said, spoken, undefined, { formatters, ignoreTag });
    made.set(key, format);
  }
  return format;
}

/** Takes on a language: what each English message is in it, in ICU MessageFormat. What it lacks stays English. */
export function speak(next: string, messages: Readonly<Record<string, string>>): void {
  spoken = next;
  translated = messages;
  made = new Map();
}

/** The language spoken, for lists of words and the like. */
export const language = (): string => spoken;

/** A text of the interface in the language spoken. The message is its English, in ICU MessageFormat:
 * `t('{n, plural, one {# name} other {# names}} of {whole}', { n, whole })`.
 */
export function t(message: string, values?: Readonly<Record<string, Value>>): string {
  const format = formatOf(message, true);
  return typeof format === 'string' ? format : String(format.format(values));
}

/** A text with more than letters in it: `rich('Read <b>this</b> {age}', { b: (it) => <b>{it}</b>, age: <Age /> })`. */
export function rich(message: string, values: Readonly<Record<string, Rich>>): ReactNode {
  const format = formatOf(message, false);
  if (typeof format === 'string') return format;
  const parts = [format.format(values as Record<string, ReactNode>)].flat();
  return createElement(Fragment, null, ...parts);
}
