/** The locale a person chose for numbers, dates and ages. */
let locale = 'en';
const makers = new Map<string, Intl.NumberFormat>();

/** Takes on how a person likes numbers, dates and ages. */
export function chooseLocale(next: string): void {
  locale = next;
  makers.clear();
}

/** How numbers are written; made once for each of its options, since making it takes longer than a row of the sheet. */
export function numbers(options: Intl.NumberFormatOptions = {}): Intl.NumberFormat {
  const key = JSON.stringify(options);
  let made = makers.get(key);
  if (!made) {
    made = new Intl.NumberFormat(locale, options);
    makers.set(key, made);
  }
  return made;
}
