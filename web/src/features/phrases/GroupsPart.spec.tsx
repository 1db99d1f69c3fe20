import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';

import { keys } from '../../shared/api';
import { figures, groups } from '../../shared/testing/phrases';
import { sampleBrief, sampleProject } from '../../shared/testing/samples';
import { showPhrases } from './testing';

it('shows groups with reasons, and makes a phrase the head', async () => {
  const { sent } = showPhrases('/?part=groups');
  const head = await screen.findByRole('region', { name: 'The phrase that covers the rest' });
  expect(head.textContent).toMatch('piano tuning');
  expect(head.textContent).toMatch(
    '40 in 100 are its own; 2 phrases have all its words: 20 in 100; 1 is near in meaning',
  );
  await userEvent.click(within(head).getByRole('button', { name: 'Make it the head phrase' }));
  expect(sent('POST', '/head')[0]?.body).toEqual({ phrase: 'piano tuning' });
  const list = screen.getByRole('list', { name: 'Groups' });
  await userEvent.click(within(list).getByRole('button', { name: 'piano tuning' }));
  expect(within(list).getByRole('table').textContent).toMatch('piano stool–');
});

it('lists all of a large group, and chooses those shown', async () => {
  const large = { ...groups, groups: groups.groups.map((group) => ({ ...group, count: 90 })) };
  const { sent } = showPhrases('/?part=groups', figures(), (_, path) =>
    path.includes('/groups') ? { body: large } : undefined,
  );
  const list = await screen.findByRole('list', { name: 'Groups' });
  expect(list.textContent).toMatch('Of 1 nothing is known.');
  await userEvent.click(within(list).getByRole('button', { name: 'piano tuning' }));
  await userEvent.click(within(list).getByRole('button', { name: 'Choose those shown' }));
  expect(sent('POST', '/chosen')[0]?.body).toEqual({ phrases: ['piano tuning', 'piano stool'], chosen: true });
  await userEvent.click(within(list).getByRole('button', { name: 'All 90 of the group' }));
  await waitFor(() => expect(sent('GET', 'group=piano%20tuning')).not.toHaveLength(0));
  expect(await screen.findByRole('button', { name: 'group of “piano tuning”' })).toBeTruthy();
});

it('moves the cut, and goes back to the one proposed', async () => {
  const { requests, sent } = showPhrases('/?part=groups&cut=0.5', figures());
  await screen.findByRole('list', { name: 'Groups' });
  expect(sent('GET', 'cut=0.5')).not.toHaveLength(0);
  await userEvent.click(screen.getByRole('button', { name: 'As proposed' }));
  await waitFor(() => expect(requests.at(-1)?.path).not.toMatch('cut='));
  expect(screen.queryByRole('button', { name: 'As proposed' })).toBeNull();
});

it('says why something could not be loaded, and tries again', async () => {
  let status = 500;
  const failing = { code: 'fault', message: 'Something went wrong here.', problems: [] };
  showPhrases('/?part=groups', figures(), (_, path) =>
    path.includes('/groups') && status === 500 ? { status, body: failing } : undefined,
  );
  expect(await screen.findByText('The phrases could not be grouped')).toBeTruthy();
  status = 200;
  await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(await screen.findByRole('list', { name: 'Groups' })).toBeTruthy();
});

it('undoes what was done to the brief', async () => {
  const { client, sent } = showPhrases('/?part=groups');
  const project = sampleProject({ brief: sampleBrief() });
  client.setQueryData(keys.project(project.id), project);
  const head = await screen.findByRole('region', { name: 'The phrase that covers the rest' });
  await userEvent.click(within(head).getByRole('button', { name: 'Make it the head phrase' }));
  client.setQueryData(keys.project(project.id), { ...project, version: 9 });
  await userEvent.click(await screen.findByRole('button', { name: 'Undo' }));
  expect(sent('PATCH', '/projects/7')[0]?.body).toEqual({ brief: project.brief, seen: { version: 9 } });
});
