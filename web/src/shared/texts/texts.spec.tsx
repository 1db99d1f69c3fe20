import { render } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';

import { setManner } from '../lib/format';
import { rich, speak, t } from '.';
import english from './en.json';
import { learn } from './languages';

afterEach(() => {
  speak('en', {});
  setManner({ locale: 'en', currency: '', rate: null });
});

it('says one and many, with numbers as the person likes them', () => {
  const said = (n: number) => t('{n, plural, one {# name} other {# names}}', { n });
  expect([said(1), said(0), said(2000)]).toEqual(['1 name', '0 names', '2,000 names']);
  setManner({ locale: 'de', currency: '', rate: null });
  expect([said(1), said(2000)]).toEqual(['1 name', '2.000 names']);
});

it('says it in the language spoken, and in English what that lacks', () => {
  speak('pl', {
    '{n, plural, one {# name} other {# names}}': '{n, plural, one {# nazwa} few {# nazwy} other {# nazw}}',
  });
  const said = (n: number) => t('{n, plural, one {# name} other {# names}}', { n });
  expect([said(1), said(3), said(5)]).toEqual(['1 nazwa', '3 nazwy', '5 nazw']);
  expect(t('Keep {label}', { label: 'inkpost' })).toBe('Keep inkpost');
});

it('learns the first language wanted that there is a translation for', async () => {
  const translations = { './de.json': () => Promise.resolve({ Keep: 'Behalten' }) };
  await learn(['xx', 'de-AT', 'en'], translations);
  expect([t('Keep'), document.documentElement.lang]).toEqual(['Behalten', 'de']);
  speak('en', {});
  document.documentElement.lang = 'en';
  await learn(['en-GB', 'de'], translations);
  expect([t('Keep'), document.documentElement.lang]).toEqual(['Keep', 'en']);
});

it('puts more than letters where the message wants it', () => {
  speak('xx', { 'Read <b>this</b> {age}': '{age}: <b>that</b> is read' });
  const { container } = render(rich('Read <b>this</b> {age}', { b: (it) => <b>{it}</b>, age: <time>now</time> }));
  expect(container.innerHTML).toBe('<time>now</time>: <b>that</b> is read');
});

it('takes what people typed as it is', () => {
  const name = "it's {n} <b>";
  expect(t('“{name}” is taken', { name })).toBe(`“${name}” is taken`);
  expect(t("Nobody's <b>", {})).toBe("Nobody's <b>");
});

it('has every message once, and each is read', () => {
  expect(Object.keys(english).length).toBeGreaterThan(800);
  for (const message of Object.keys(english)) expect(message).toBe(message.trim());
});
