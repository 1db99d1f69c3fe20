import { t } from '../../shared/texts';

/** Colours to try, with what they tend to suggest; habits of seeing, not laws. */
export const INKS: readonly { colour: string; word: string; suggests: string }[] = [
  { colour: '#2c1826', word: t('near black'), suggests: t('serious, timeless') },
  { colour: '#4f2143', word: t('damson'), suggests: t('craft, a little grand') },
  { colour: '#24625b', word: t('verdigris'), suggests: t('calm, healing, outdoors') },
  { colour: '#1f4e8c', word: t('blue'), suggests: t('trust, order') },
  { colour: '#8a5208', word: t('amber'), suggests: t('warmth, harvest') },
  { colour: '#a3361f', word: t('brick'), suggests: t('appetite, urgency') },
  { colour: '#8f2d62', word: t('raspberry'), suggests: t('play, affection') },
  { colour: '#3f6b1f', word: t('leaf'), suggests: t('growth, thrift') },
  { colour: '#5b4a8a', word: t('violet'), suggests: t('imagination, ceremony') },
  { colour: '#fdf8ee', word: t('paper'), suggests: t('lightness, on dark ground') },
  { colour: '#f2c14e', word: t('gold'), suggests: t('value, celebration') },
  { colour: '#7cc5b8', word: t('pale verdigris'), suggests: t('freshness, on dark ground') },
];

export const PAPERS = { light: '#fdf8ee', dark: '#1b141a' } as const;
export type Ground = keyof typeof PAPERS;

function luminance(colour: string): number {
  const [r = 0, g = 0, b = 0] = [1, 3, 5]
    .map((at) => parseInt(colour.slice(at, at + 2), 16) / 255)
    .map((c) => (c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** How far two colours stand apart, 1 to 21 (WCAG 2.2). */
export function contrast(one: string, other: string): number {
  const [low = 0, high = 0] = [luminance(one), luminance(other)].sort((a, b) => a - b);
  return (high + 0.05) / (low + 0.05);
}

/** Large letters need three to one. */
export const ENOUGH = 3;

export const wordOf = (colour: string): string => {
  const known = INKS.find((ink) => ink.colour === colour);
  return known ? `${known.word}: ${known.suggests}` : t('a colour of your own');
};
