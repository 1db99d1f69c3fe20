import { afterEach, beforeEach, expect, it, vi } from 'vitest';

import { sampleCell, sampleCheck } from '../../shared/testing/samples';
import { followAnswers } from './answers';

class Source extends EventTarget {
  static readonly CLOSED = 2;
  static opened: Source[] = [];
  readyState = 1;
  constructor(readonly address: string) {
    super();
    Source.opened.push(this);
  }
  close() {
    this.readyState = 2;
  }
  say(type: string, data: unknown, lastEventId = '') {
    this.dispatchEvent(new MessageEvent(type, { data: JSON.stringify(data), lastEventId }));
  }
}
const listener = { begun: vi.fn(), answers: vi.fn(), progress: vi.fn() };
const source = (): Source => {
  const last = Source.opened.at(-1);
  if (!last) throw new Error('no stream was opened');
  return last;
};

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', Source);
  Source.opened = [];
  Object.values(listener).forEach((f) => f.mockClear());
});
afterEach(() => {
  vi.useRealTimers();
});

it('puts answers that come together on screen at once, and tells how far it is', () => {
  const end = followAnswers(7, listener);
  expect(source().address).toBe('/api/projects/7/checks/stream');
  source().say('answers', { cells: [] }, '40');
  expect(listener.begun).toHaveBeenCalledOnce();
  source().say('answers', { cells: [sampleCell({ extension: 'com' })] }, '41');
  source().say('answers', { cells: [sampleCell({ extension: 'net' })] }, '42');
  source().say('progress', sampleCheck({ done: 2 }));
  expect(listener.answers).not.toHaveBeenCalled();
  vi.advanceTimersByTime(100);
  expect(listener.answers).toHaveBeenCalledOnce();
  expect((listener.answers.mock.calls[0] as [unknown[]])[0]).toHaveLength(2);
  expect(listener.progress).toHaveBeenCalledWith(expect.objectContaining({ done: 2 }));
  end();
  expect(source().readyState).toBe(2);
});

it('begins anew from the last answer when the browser has given up, so that none is lost', () => {
  const end = followAnswers(7, listener);
  source().say('answers', { cells: [] }, '42');
  source().dispatchEvent(new Event('error'));
  vi.advanceTimersByTime(10_000);
  expect(Source.opened).toHaveLength(1);
  source().readyState = 2;
  source().dispatchEvent(new Event('error'));
  vi.advanceTimersByTime(10_000);
  expect(Source.opened).toHaveLength(2);
  expect(source().address).toBe('/api/projects/7/checks/stream?after=42');
  source().say('answers', { cells: [] }, '42');
  expect(listener.begun).toHaveBeenCalledOnce();
  end();
});
