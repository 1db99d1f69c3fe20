import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it, vi } from 'vitest';

import type { Brief } from '../../shared/api';
import { sampleBrief, sampleProject } from '../../shared/testing/samples';
import { concepts } from '../../shared/lib/concepts';
import { presetOf } from '../../shared/lib/grading';
import { type Answer, renderIn, serve } from '../../shared/testing/render';
import { useBrief } from './useBrief';
import { WordsPanel } from './WordsPanel';

const brief = sampleBrief({
  name: 'Pressroom',
  keywords: [{ text: 'ink', weight: 3, senses: [], drop: [] }],
});
const project = sampleProject({ brief });

function setUp(
  save: (sent: Brief) => Answer = (sent) => ({ body: { ...project, brief: sent } }),
  start: Brief = brief,
) {
  const requests = serve((method, path, body) => {
    if (path === '/api/vocabulary')
      return { body: { extensions: ['com', 'ie'], groups: { kin: 'its company' }, sources: [] } };
    if (path.endsWith('/world'))
      return { body: { fields_near: [], facets: [], questions: [], fits: true, informed: true } };
    if (path.endsWith('/words'))
      return {
        body: [
          {
            keyword: 'ink',
            senses: [],
            taken: [],
            offers: [{ text: 'quill', group: 'kin', pos: 'n', closeness: 0.7 }],
            suggestion: '',
            known: true,
          },
        ],
      };
    if (method !== 'PATCH') return { body: [] };
    const answer = save((body as { brief: Brief }).brief);
    return answer.status ? answer : { ...answer, body: { not_taken: [], ...(answer.body as object) } };
  });
  const onDraft = vi.fn();
  function Panel() {
    return (
      <WordsPanel
        project={project}
        editor={useBrief({ ...project, brief: start })}
        onDraft={onDraft}
        onPropose={vi.fn()}
      />
    );
  }
  renderIn(<Panel />);
  return {
    onDraft,
    saved: () => requests.filter((a) => a.method === 'PATCH').map((a) => (a.body as { brief: Brief }).brief),
  };
}

describe('WordsPanel', () => {
  let user: ReturnType<typeof userEvent.setup>;
  beforeEach(() => {
    user = userEvent.setup();
  });

  it('saves at once; what changes while names are made is saved together after', async () => {
    let answer = () => {};
    const after = new Promise<void>((resolve) => {
      answer = resolve;
    });
    const { saved } = setUp((sent) => ({ body: { ...project, brief: sent }, after }));
    const pressed = async (keys: string) => {
      screen.getByRole('slider', { name: 'Weight of ink' }).focus();
      await user.keyboard(keys);
    };
    await pressed('{ArrowUp}');
    await waitFor(() => {
      expect(saved()).toHaveLength(1);
    });
    await pressed('{ArrowDown}');
    await new Promise((resolve) => {
      setTimeout(resolve, 150);
    });
    await pressed('{ArrowDown}');
    expect(saved()).toHaveLength(1);
    answer();
    await waitFor(
      () => {
        expect(saved().map((b) => b.keywords[0]?.weight)).toEqual([4, 2]);
      },
      { timeout: 30_000 },
    );
  });

  it('saves what was added, and undoes', async () => {
    const { saved } = setUp();
    await user.type(screen.getByLabelText('Add words'), 'Post, paper,ink{Enter}');
    await waitFor(() => {
      expect(saved()).toHaveLength(1);
    });
    expect(saved()[0]?.keywords.map((k) => k.text)).toEqual(['ink', 'post', 'paper']);
    await screen.findByText('Brief · saved');
    await user.click(screen.getByRole('button', { name: 'Undo the last change of the brief' }));
    await waitFor(() => {
      expect(saved().at(-1)?.keywords).toHaveLength(1);
    });
    expect(screen.queryByText('paper')).not.toBeInTheDocument();
  });

  it('weighs a keyword by arrow keys, from 1 to 5', async () => {
    const { saved } = setUp();
    screen.getByRole('slider', { name: 'Weight of ink' }).focus();
    await user.keyboard('{ArrowUp}{ArrowUp}{ArrowUp}');
    expect(screen.getByRole('slider', { name: 'Weight of ink' })).toHaveAttribute('aria-valuenow', '5');
    await waitFor(() => {
      expect(saved().at(-1)?.keywords[0]?.weight).toBe(5);
    });
  });

  it('weighs the measures: grades follow the slider, the brief keeps what it rests on', async () => {
    const { saved, onDraft } = setUp();
    (await screen.findByRole('slider', { name: 'Weight of keyword fit' })).focus();
    await user.keyboard('{ArrowRight}{ArrowRight}');
    const usual = presetOf('mix');
    const fit = usual.fit ?? 0;
    expect(onDraft).toHaveBeenCalledWith({ ...usual, fit: fit + 1 });
    expect(onDraft).toHaveBeenLastCalledWith(null);
    await waitFor(() => {
      expect(saved().at(-1)?.weights).toEqual({ ...usual, fit: fit + 2 });
    });
    await user.click(await screen.findByRole('button', { name: 'Usual weights' }));
    await waitFor(() => {
      expect(saved().at(-1)?.weights).toEqual({});
    });
  });

  it('says that something has to count when the last weight is taken away', async () => {
    const { saved } = setUp(undefined, { ...brief, weights: { sound: 1 } });
    const slider = await screen.findByRole('slider', { name: 'Weight of sound' });
    slider.focus();
    await user.keyboard('{ArrowLeft}');
    expect(await screen.findByText('Something has to count: one measure stays above 0.')).toBeInTheDocument();
    expect(slider).toHaveAttribute('aria-valuenow', '1');
    expect(saved()).toEqual([]);
  });

  it('shows each problem at its field and keeps what was typed', async () => {
    setUp(() => ({
      status: 400,
      body: {
        code: 'problems',
        message: 'Look again.',
        problems: [
          { path: 'brief.keywords.1.text', code: 'script', message: 'Cyrillic letters.' },
          { path: 'brief.limits.letters_max', code: 'out_of_range', message: '0 is outside.' },
        ],
      },
    }));
    await user.type(screen.getByLabelText('Add words'), 'чернила{Enter}');
    expect(await screen.findByText('Brief · not saved')).toBeInTheDocument();
    const words = screen.getByRole('list', { name: 'Keywords' });
    expect(within(words).getByText('чернила')).toBeInTheDocument();
    expect(within(words).getByRole('alert')).toHaveTextContent('Cyrillic letters.');
    expect(screen.getByText('0 is outside.')).toBeInTheDocument();
    expect(screen.getByLabelText('to')).toBeInvalid();
  });

  it('offers to try again when the server is gone', async () => {
    let down = true;
    const { saved } = setUp((sent) => (down ? { status: 503, body: 'down' } : { body: { ...project, brief: sent } }));
    await user.click(screen.getByRole('button', { name: 'Brand-like' }));
    const retry = await screen.findByRole('button', { name: 'Retry' });
    down = false;
    await user.click(retry);
    expect(await screen.findByText('Brief · saved')).toBeInTheDocument();
    expect(saved().map((b) => b.purpose)).toEqual(['brand', 'brand']);
  });

  it('opens a keyword up: words are kept and dropped by one press each', async () => {
    const { saved } = setUp();
    await user.click(await screen.findByRole('button', { name: 'ink' }));
    const dialog = await screen.findByRole('dialog', { name: 'Words around “ink”' });
    await user.click(await within(dialog).findByRole('button', { name: 'quill' }));
    await waitFor(() => {
      expect(
        saved()
          .at(-1)
          ?.keywords.map((k) => k.text),
      ).toEqual(['ink', 'quill']);
    });
    await user.click(within(dialog).getByRole('button', { name: 'quill' }));
    await waitFor(() => {
      expect(saved().at(-1)?.keywords).toHaveLength(1);
    });
    await user.click(within(within(dialog).getByRole('button', { name: 'quill' })).getByTestId('CancelIcon'));
    await waitFor(() => {
      expect(saved().at(-1)?.keywords[0]?.drop).toEqual(['quill']);
    });
  });

  it('switches a recipe off', async () => {
    const others = concepts()
      .recipes.map((r) => r.name)
      .filter((name) => name !== 'pair');
    const { saved } = setUp(undefined, { ...brief, making: { ...brief.making, off: others } });
    expect(screen.queryByText(/All recipes are off/)).not.toBeInTheDocument();
    await user.click(await screen.findByRole('switch', { name: 'pair' }));
    await waitFor(() => {
      expect(saved().at(-1)?.making.off).toEqual([...others, 'pair']);
    });
    expect(screen.getByText(/All recipes are off/)).toBeInTheDocument();
  });

  it('saves what makes sense, and says at its place what was not taken', async () => {
    const not_taken = [{ path: 'brief.places.0', code: 'script', message: 'Write the sound in the letters a to z.' }];
    const { saved } = setUp((sent) => ({ body: { ...project, brief: { ...sent, places: [] }, not_taken } }));
    await user.type(screen.getByLabelText('Towns, regions, streets'), 'Москва{Enter}');
    expect(await screen.findByText('Brief · saved in part')).toBeInTheDocument();
    expect(screen.getByText('Write the sound in the letters a to z.')).toBeInTheDocument();
    expect(screen.getByText(/1 entry was not taken/)).toBeInTheDocument();
    expect(screen.getByText('москва')).toBeInTheDocument();
    const leaving = new Event('beforeunload', { cancelable: true });
    window.dispatchEvent(leaving);
    expect(leaving.defaultPrevented).toBe(true);
    await user.type(screen.getByLabelText('Add words'), 'paper{Enter}');
    await waitFor(() => {
      expect(
        saved()
          .at(-1)
          ?.keywords.map((k) => k.text),
      ).toEqual(['ink', 'paper']);
    });
  });

  it('never writes over what was changed in another window: both are shown, and one chooses', async () => {
    const theirs = {
      ...project,
      version: 9,
      brief: sampleBrief({ ...brief, keywords: [{ text: 'quill', weight: 3, senses: [], drop: [] }] }),
    };
    let refuse = true;
    const { saved } = setUp((sent) =>
      refuse
        ? {
            status: 409,
            body: { code: 'changed_elsewhere', message: 'Changed.', problems: [], current: theirs },
          }
        : { body: { ...project, version: 10, brief: sent } },
    );
    await user.type(screen.getByLabelText('Add words'), 'paper{Enter}');
    const told = await screen.findByText(/changed in another window/);
    expect(told).toHaveTextContent('here: ink (3), paper (3)there: quill (3)');
    refuse = false;
    await user.click(screen.getByRole('button', { name: 'Keep mine' }));
    expect(await screen.findByText('Brief · saved')).toBeInTheDocument();
    expect(
      saved()
        .at(-1)
        ?.keywords.map((k) => k.text),
    ).toEqual(['ink', 'paper']);
  });

  it('shows the shapes as they are undone to, and saves none that were not changed', async () => {
    const { saved } = setUp();
    const shapes = screen.getByLabelText('Shapes');
    await user.type(shapes, 'cvcv{Enter}');
    await waitFor(() => {
      expect(saved()).toHaveLength(1);
    });
    await screen.findByText('Brief · saved');
    await user.click(shapes);
    await user.tab();
    await user.click(screen.getByRole('button', { name: 'Undo the last change of the brief' }));
    await waitFor(() => {
      expect(shapes).toHaveValue('');
    });
    await waitFor(() => {
      expect(saved().map((b) => b.making.shapes)).toEqual([['CVCV'], []]);
    });
  });
});
