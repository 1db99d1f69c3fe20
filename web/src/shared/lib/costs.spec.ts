import { expect, it } from 'vitest';

import { costInWords, type CostSpan } from './costs';

const cost = (seller: string, premium = false) => ({ amount: '9.00', extension: 'com', seller, premium });

it.each<[CostSpan, string]>([
  ['first', '.com, the first year: by the list of Weir, as long as the name is open'],
  ['later', '.com, each later year: by the list of Weir, as long as the name is open'],
  ['whole', '.com, 3 years: by the list of Weir, as long as the name is open'],
])('says whose price it is, and of which years: %s', (span, said) => {
  expect(costInWords(cost('Weir'), { years: 3 }, span)).toBe(said);
});

it('says of a quote that a seller asks it, and of which names it is a premium one', () => {
  expect(costInWords(cost(''), { years: 1 }, 'whole')).toBe('.com, one year: as a seller asks for it');
  expect(costInWords(cost('', true), { years: 1 }, 'first')).toBe(
    '.com, the first year: a premium name, as a seller asks for it',
  );
});
