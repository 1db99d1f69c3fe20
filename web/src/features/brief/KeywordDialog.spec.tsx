import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';

import type { Keyword, Opened } from '../../shared/api';
import { renderIn } from '../../shared/testing/render';
import { KeywordDialog } from './KeywordDialog';

const word = (text: string, fields: Partial<Keyword> = {}): Keyword => ({
  text,
  weight: 3,
  senses: [],
  drop: [],
  ...fields,
});
const opened: Opened = {
  keyword: 'star',
  senses: [
    { id: 4, pos: 'n', gloss: 'a celestial body', words: ['star'] },
    { id: 9, pos: 'n', gloss: 'an actor', words: ['star', 'lead'] },
  ],
  taken: [4],
  offers: [{ text: 'nova', group: 'narrower', pos: 'n', closeness: 0.8 }],
  suggestion: '',
  known: true,
};

function show(keyword: Keyword, found: Opened | undefined, others: Keyword[] = []) {
  const onChange = vi.fn<(keywords: Keyword[]) => void>();
  const onClose = vi.fn();
  renderIn(
    <KeywordDialog
      keyword={keyword}
      opened={found}
      groups={{ narrower: 'kinds of it', kin: 'its company' }}
      keywords={[keyword, ...others]}
      onChange={onChange}
      onClose={onClose}
    />,
  );
  return { onChange, onClose };
}

it('picks the meaning that is meant, and lets another go', async () => {
  const { onChange } = show(word('star'), opened);
  const meanings = within(screen.getByRole('group', { name: 'Meanings' }));
  expect(meanings.getByRole('checkbox', { name: /celestial body/ })).toBeChecked();
  await userEvent.click(meanings.getByRole('checkbox', { name: /an actor/ }));
  expect(onChange.mock.lastCall?.[0][0]?.senses).toEqual([4, 9]);
  await userEvent.click(meanings.getByRole('checkbox', { name: /celestial body/ }));
  expect(onChange.mock.lastCall?.[0][0]?.senses).toEqual([]);
});

it('takes a dropped word back, and shows only groups that have words', async () => {
  const { onChange } = show(word('star', { drop: ['dwarf'] }), opened);
  expect(screen.getByRole('group', { name: 'kinds of it' })).toBeInTheDocument();
  expect(screen.queryByRole('group', { name: 'its company' })).not.toBeInTheDocument();
  await userEvent.click(within(screen.getByRole('group', { name: 'Dropped' })).getByRole('button', { name: 'dwarf' }));
  expect(onChange.mock.lastCall?.[0][0]?.drop).toEqual([]);
});

it('splits a phrase into its words, each once', async () => {
  const { onChange, onClose } = show(word('night sky', { weight: 5 }), undefined, [word('sky')]);
  expect(screen.getByText(/once the brief is saved/)).toBeInTheDocument();
  await userEvent.click(screen.getByRole('button', { name: 'Split into words' }));
  expect(onChange.mock.lastCall?.[0].map((k) => [k.text, k.weight])).toEqual([
    ['sky', 3],
    ['night', 5],
  ]);
  expect(onClose).toHaveBeenCalled();
});

it('says plainly when nothing is known of a word', () => {
  show(word('zzyxq'), { ...opened, keyword: 'zzyxq', senses: [], taken: [], offers: [] });
  expect(screen.getByText(/nothing on it/)).toBeInTheDocument();
});
