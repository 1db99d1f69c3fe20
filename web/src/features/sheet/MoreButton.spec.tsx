import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { sampleProject } from '../../shared/testing/samples';
import { MoreButton } from './MoreButton';

const conflict = (code: string, message: string): Answer => ({
  status: 409,
  body: { code, message, problems: [] },
});

describe('MoreButton', () => {
  beforeEach(() => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
  });
  afterEach(() => {
    vi.useRealTimers();
  });

  it('lists the rest by itself, once, and after a change not before a moment has passed', async () => {
    const requests = serve(() => ({ body: sampleProject({ only_first: false }) }));
    const { rerender } = renderIn(<MoreButton project={sampleProject({ only_first: false, changed_at: '0' })} />);
    for (const changed_at of ['1', '2']) {
      // Another change meanwhile: the wait begins anew.
      rerender(<MoreButton project={sampleProject({ only_first: true, changed_at })} />);
      await vi.advanceTimersByTimeAsync(500);
    }
    expect(requests).toHaveLength(0);
    await vi.advanceTimersByTimeAsync(500);
    await waitFor(() => {
      expect(requests.map((a) => [a.method, a.path])).toEqual([['POST', '/api/projects/7/more']]);
    });
  });

  it('lists the rest of a new list at once', async () => {
    const requests = serve(() => ({ body: sampleProject({ only_first: false }) }));
    renderIn(<MoreButton project={sampleProject({ only_first: true })} />);
    await vi.advanceTimersByTimeAsync(50);
    expect(requests.map((a) => a.path)).toEqual(['/api/projects/7/more']);
  });

  it('asks for nothing by itself when the list is whole, and says why there is no more', async () => {
    const requests = serve(() => conflict('no_more', 'That is all there is.'));
    renderIn(<MoreButton project={sampleProject()} />);
    await vi.advanceTimersByTimeAsync(5000);
    expect(requests).toHaveLength(0);
    await userEvent
      .setup({ advanceTimers: vi.advanceTimersByTime })
      .click(screen.getByRole('button', { name: 'More names' }));
    expect(await screen.findByText('That is all there is.')).toBeInTheDocument();
  });
});
