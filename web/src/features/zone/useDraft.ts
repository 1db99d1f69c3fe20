import { useEffect, useMemo, useReducer } from 'react';

import type { Zone, ZoneRecord } from '../../shared/api';

/** A record that is being edited, known by a number of its own. */
export interface Row extends ZoneRecord {
  key: number;
}
interface Draft {
  rows: Row[];
  past: Row[][];
  future: Row[][];
  /** The cell that was typed into last: going on there is one step for undoing. */
  cell: string;
}
type Act =
  | { kind: 'type'; key: number; field: keyof ZoneRecord; value: string | number }
  | { kind: 'put'; records: readonly ZoneRecord[] }
  | { kind: 'begin'; records: readonly ZoneRecord[] }
  | { kind: 'drop'; key: number }
  | { kind: 'undo' }
  | { kind: 'redo' };

const MOST_STEPS = 100;
let last = 0;
const keyed = (records: readonly ZoneRecord[]): Row[] => records.map((one) => ({ ...one, key: ++last }));
const step = (draft: Draft, rows: Row[], cell = ''): Draft => ({
  rows,
  past: cell && cell === draft.cell ? draft.past : [...draft.past.slice(-MOST_STEPS), draft.rows],
  future: [],
  cell,
});

export function reduce(draft: Draft, act: Act): Draft {
  switch (act.kind) {
    case 'type': {
      const rows = draft.rows.map((row) => (row.key === act.key ? { ...row, [act.field]: act.value } : row));
      return step(draft, rows, `${String(act.key)}.${act.field}`);
    }
    case 'put':
      return step(draft, keyed(act.records));
    case 'begin':
      return { rows: keyed(act.records), past: [], future: [], cell: '' };
    case 'drop':
      return step(
        draft,
        draft.rows.filter((row) => row.key !== act.key),
      );
    case 'undo': {
      const before = draft.past.at(-1);
      if (!before) return draft;
      return { rows: before, past: draft.past.slice(0, -1), future: [draft.rows, ...draft.future], cell: '' };
    }
    case 'redo': {
      const [next] = draft.future;
      if (!next) return draft;
      return { rows: next, past: [...draft.past, draft.rows], future: draft.future.slice(1), cell: '' };
    }
  }
}

/** Records without what they are known by here. */
export const recordsOf = (rows: readonly Row[]): ZoneRecord[] =>
  rows.map(({ name, kind, ttl, data }) => ({ name, kind, ttl, data }));
const same = (a: readonly ZoneRecord[], b: readonly ZoneRecord[]) => JSON.stringify(a) === JSON.stringify(b);
const placeOf = (id: number) => `vinetag.zone.${String(id)}`;

function leftBehind(zone: Zone): ZoneRecord[] | null {
  try {
    const found = JSON.parse(sessionStorage.getItem(placeOf(zone.id)) ?? 'null') as {
      edition: number;
      records: ZoneRecord[];
    } | null;
    return found?.edition === zone.edition ? found.records : null;
  } catch {
    return null;
  }
}

/** The records as they are being edited: every step can be taken back, and leaving the page loses nothing. */
export function useDraft(zone: Zone) {
  const [draft, act] = useReducer(reduce, null, () => ({
    rows: keyed(leftBehind(zone) ?? zone.records),
    past: [],
    future: [],
    cell: '',
  }));
  const records = useMemo(() => recordsOf(draft.rows), [draft.rows]);
  const edited = !same(records, zone.records);
  useEffect(() => {
    try {
      if (edited) sessionStorage.setItem(placeOf(zone.id), JSON.stringify({ edition: zone.edition, records }));
      else sessionStorage.removeItem(placeOf(zone.id));
    } catch {
      // Without such a place the page has to stay open.
    }
  });
  return { ...draft, records, edited, act };
}
