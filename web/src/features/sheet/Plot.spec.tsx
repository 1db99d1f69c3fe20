import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';

import type { Dots } from '../../shared/api';
import { renderIn, serve } from '../../shared/testing/render';
import { Plot } from './Plot';
import { EVERYTHING } from '../../shared/lib/question';

const dots: Dots = {
  labels: ['inkpost', 'paperpost', 'starsspace', 'xn--e1afmkfd'],
  letters: [7, 9, 10, 6],
  scores: { length: [100, 95, 90, 100], memory: [88, 90, 20, null] },
  kept: [false, true, false, false],
};
const even = { length: 1, memory: 1 };

function show(props: Partial<Parameters<typeof Plot>[0]> = {}, body: unknown = dots, status = 200) {
  const requests = serve(() => ({ status, body }));
  const acts = { onSelect: vi.fn(), onAct: vi.fn() };
  const { container } = renderIn(
    <Plot
      projectId={7}
      question={EVERYTHING}
      grading={{ weights: even, exponent: 1 }}
      selected={null}
      {...acts}
      {...props}
    />,
  );
  return { ...acts, asked: requests, circles: () => container.querySelectorAll('circle') };
}

describe('Plot', () => {
  it('draws a dot for each name, larger when it is kept', async () => {
    const { circles, asked: requests } = show();
    expect(await screen.findByText(/^4 names/)).toBeInTheDocument();
    expect([...circles()].map((c) => c.getAttribute('r'))).toEqual(['2.6', '4.5', '2.6', '2.6']);
    expect(requests[0]?.path).toBe('/api/projects/7/dots');
  });

  it('says what the chosen dot is, with the grade as the weights make it', async () => {
    show({ selected: 'paperpost', grading: { weights: { length: 1, memory: 0 }, exponent: 1 } });
    expect(await screen.findByRole('status')).toHaveTextContent('paperpost: letters 9, grade 95');
  });

  it('goes from name to name by arrow keys, and keeps', async () => {
    const { onSelect, onAct } = show({ selected: 'inkpost' });
    (await screen.findByRole('application')).focus();
    await userEvent.keyboard('{ArrowRight}');
    expect(onSelect).toHaveBeenLastCalledWith('paperpost');
    await userEvent.keyboard('t');
    expect(onAct).toHaveBeenCalledWith('keep', ['inkpost']);
    await userEvent.keyboard('{Enter}');
    expect(onSelect).toHaveBeenCalledTimes(1);
  });

  it('starts anywhere when no name is chosen', async () => {
    const { onSelect } = show();
    (await screen.findByRole('application')).focus();
    await userEvent.keyboard('{ArrowDown}');
    expect(onSelect).toHaveBeenCalledWith('inkpost');
  });

  it('sets other figures against each other, and leaves out names that lack one', async () => {
    const { circles } = show();
    await userEvent.click(await screen.findByLabelText('Upwards'));
    await userEvent.click(screen.getByRole('option', { name: 'Memory' }));
    expect(screen.getByRole('application', { name: /^Memory against Letters/ })).toBeInTheDocument();
    expect(screen.getByText(/^3 names/)).toBeInTheDocument();
    expect(circles()).toHaveLength(3);
  });

  it('picks the dot that is pressed, though the figure is letterboxed', async () => {
    const { onSelect, circles } = show();
    await screen.findByText(/^4 names/);
    const [, dot] = circles();
    const figure = dot?.closest('svg') as SVGSVGElement;
    vi.spyOn(figure, 'getBoundingClientRect').mockReturnValue({
      left: 100,
      top: 50,
      width: 660,
      height: 620,
    } as DOMRect);
    const at = {
      clientX: 100 + Number(dot?.getAttribute('cx')),
      clientY: 50 + 100 + Number(dot?.getAttribute('cy')),
    };
    fireEvent.click(figure, at);
    expect(onSelect).toHaveBeenCalledWith('paperpost');
    fireEvent.click(figure, { clientX: 101, clientY: 51 });
    expect(onSelect).toHaveBeenCalledTimes(1);
    fireEvent.pointerMove(figure, at);
    expect(screen.getByRole('status')).toHaveTextContent('paperpost: letters 9, grade 93');
  });

  it('says when there is nothing to show, and when the dots did not come', async () => {
    show({}, { labels: [], letters: [], scores: {}, kept: [] });
    expect(await screen.findByText('No dots to show')).toBeInTheDocument();
    show({}, { code: 'gone', message: 'The server is away.', problems: [] }, 503);
    await waitFor(() => {
      expect(screen.getByRole('alert')).toHaveTextContent('The server is away.');
    });
    expect(screen.getByRole('button', { name: 'Try again' })).toBeInTheDocument();
  });
});
