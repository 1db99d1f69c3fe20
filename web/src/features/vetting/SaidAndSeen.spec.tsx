import { render, screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';

import { SaidAndSeen } from './SaidAndSeen';

const met = {
  alphabet: [
    { letter: 'I', word: 'India' },
    { letter: '9', word: 'nine' },
  ],
  said: '',
  capitals: 'I9',
  email: 'hello@i9.ie',
  handle: '@i9',
};

it('spells a name, and says so where nobody knows how it is said', () => {
  render(<SaidAndSeen met={met} shown="i9" others={[]} />);
  const spelt = within(screen.getByRole('list', { name: 'Spelt on the telephone' })).getAllByRole('listitem');
  expect(spelt.map((item) => item.textContent)).toEqual(['IIndia', '9nine']);
  expect(screen.getByText('Said').nextSibling).toHaveTextContent('not known');
  expect(screen.getByText('As an address').nextSibling).toHaveTextContent('hello@i9.ie');
  expect(screen.queryByText('Among the others')).toBeNull();
});

it('stands among a few of the others, in the order of letters', () => {
  render(<SaidAndSeen met={met} shown="kiln" others={['zorvo', 'ash', 'elm', 'fir', 'oak', 'yew']} />);
  const among = screen.getByText('Among the others').parentElement as HTMLElement;
  expect([...among.children].slice(1).map((one) => one.textContent)).toEqual([
    'ash',
    'elm',
    'fir',
    'kiln',
    'oak',
    'zorvo',
  ]);
});
