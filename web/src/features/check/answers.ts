import type { Cell, Check } from '../../shared/api';

interface Listener {
  /** The stream has begun: what was read before may lack answers that came in between. */
  begun: () => void;
  answers: (cells: Cell[]) => void;
  progress: (check: Check | null) => void;
}

/** Answers that come within one frame are put on screen together. */
const GATHER = 80;
const AGAIN_AFTER = 4_000;

/**
 * Follows a project's answers as they come, until the returned function is called. The browser comes
 * back by itself after a break and sends the number of the last answer it saw, so that none is lost;
 * where it gives up, this begins anew from that number.
 */
export function followAnswers(projectId: number, listener: Listener): () => void {
  if (typeof EventSource === 'undefined') return () => undefined;
  let last = '';
  let gathered: Cell[] = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  let retry: ReturnType<typeof setTimeout> | undefined;
  let source: EventSource;
  const flush = () => {
    timer = undefined;
    const cells = gathered;
    gathered = [];
    if (cells.length) listener.answers(cells);
  };
  const open = () => {
    source = new EventSource(`/api/projects/${projectId}/checks/stream${last && `?after=${last}`}`);
    source.addEventListener('answers', (event: MessageEvent<string>) => {
      if (!last) listener.begun();
      last = event.lastEventId;
      gathered.push(...(JSON.parse(event.data) as { cells: Cell[] }).cells);
      timer ??= setTimeout(flush, GATHER);
    });
    source.addEventListener('progress', (event: MessageEvent<string>) => {
      listener.progress(JSON.parse(event.data) as Check | null);
    });
    source.addEventListener('error', () => {
      if (source.readyState === EventSource.CLOSED) retry = setTimeout(open, AGAIN_AFTER);
    });
  };
  open();
  return () => {
    source.close();
    clearTimeout(timer);
    clearTimeout(retry);
  };
}
