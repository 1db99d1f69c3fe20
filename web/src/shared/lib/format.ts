const count = new Intl.NumberFormat('en');
const moment = new Intl.DateTimeFormat('en', { dateStyle: 'medium', timeStyle: 'medium' });
const day = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });

/** A count with separators. */
export const formatCount = (n: number): string => count.format(n);

/** A date without its time, in UTC, as registries give them. */
export const formatDay = (iso: string): string => day.format(new Date(iso));

/** The exact time, in the reader's own zone. */
export const formatMoment = (iso: string): string => moment.format(new Date(iso));

/** "4 min ago": how long before `now` (milliseconds) it was. */
export function formatAge(iso: string, now: number): string {
  const seconds = Math.max(0, (now - Date.parse(iso)) / 1000);
  if (seconds < 45) return 'just now';
  if (seconds < 3600) return `${Math.max(1, Math.round(seconds / 60))} min ago`;
  if (seconds < 86_400) return `${Math.round(seconds / 3600)} h ago`;
  const days = Math.round(seconds / 86_400);
  return days === 1 ? 'yesterday' : `${count.format(days)} days ago`;
}

/** One or many: `plural(1, 'name')` is "1 name". */
export const plural = (n: number, one: string, many = `${one}s`): string => `${count.format(n)} ${n === 1 ? one : many}`;
