import { render, screen } from '@testing-library/react';
import { expect, it } from 'vitest';

import { sampleCell, sampleCosts, sampleRow } from '../../shared/testing/samples';
import { spanOf } from '../../shared/sheet/layout';
import { columnOf, layoutOf } from './columns';
import { SheetRow } from '../../shared/sheet/SheetRow';
import { figureColumns, statusColumns } from './useView';

const row = sampleRow({
  label: 'knightsky',
  grade: 71.2,
  scores: { length: 100, spelling: 14, fit: 80 },
  starts: [0, 6],
  verdict: 'later',
  syllables: 0,
  cells: [
    sampleCell({ extension: 'com', status: 'premium', first_year: '300', currency: 'EUR' }),
    sampleCell({ extension: 'net', first_year: '12', currency: 'EUR' }),
    sampleCell({ extension: 'org', status: 'taken', first_year: '1' }),
  ],
  costs: sampleCosts({
    first: { amount: '1.50', extension: 'net', seller: 'Lantern Names', premium: false },
    whole: { amount: '900.00', extension: 'com', seller: '', premium: true },
  }),
});

function show(columns: readonly string[], weights: Record<string, number> = { length: 1, fit: 1 }) {
  const layout = layoutOf(columns, [], {});
  render(
    <SheetRow
      row={row}
      index={0}
      id="row-0"
      top={0}
      layout={layout}
      span={spanOf(layout, 0, 0)}
      context={{ weights, exponent: 1 }}
      dense={false}
      selected={false}
      marked={false}
    />,
  );
  return screen.getAllByRole('gridcell').map((c) => c.textContent);
}

it('grades by the weights in hand, whatever the server said before', () => {
  expect(show(['grade'])[1]).toBe('90');
  expect(show(['grade'], { length: 0, spelling: 3, fit: 0 })).toContain('14');
});

it('shows every measure, and a dash where there is none', () => {
  expect(show(figureColumns()).slice(3)).toEqual(['100', '14', '80', '–', '–', '–', '–']);
  expect(screen.getAllByTitle('Not graded')).toHaveLength(4);
});

it('shows statuses, the cheapest known first year, and what is not known as a dash', () => {
  expect(
    show([...statusColumns(['com', 'net', 'org']), 'price', 'later', 'whole', 'looked', 'syllables']).slice(3),
  ).toEqual(['premium', 'open', 'taken', '€1.50 .net', '–', '€900 .com', 'later', '–']);
  expect(screen.getByText('€1.50')).toHaveAttribute(
    'title',
    '.net, the first year: by the list of Lantern Names, as long as the name is open',
  );
  expect(screen.getByText('€900').title).toMatch('.com, 5 years: a premium name, as a seller asks for it');
});

it('sets columns that stay in sight first', () => {
  const layout = layoutOf(['grade', 'letters', '.com'], ['.com', 'letters'], { name: 200, '.com': 90 });
  expect(layout.columns.map((c) => c.id)).toEqual(['.com', 'letters', 'grade']);
  expect(layout.template).toBe('30px 200px 90px 54px 60px');
  expect([...layout.stays]).toEqual(['name', '.com', 'letters']);
});

it('draws the columns in sight, those that stay among them, at their places', () => {
  const layout = layoutOf(
    ['grade', 'letters', ...figureColumns().slice(2), 'recipes', 'added', 'price', 'looked'],
    ['letters'],
    {},
  );
  const span = spanOf(layout, 500, 150);
  render(
    <SheetRow
      row={row}
      index={0}
      id="row-0"
      top={0}
      layout={layout}
      span={span}
      context={{ weights: { length: 1 }, exponent: 1 }}
      dense={false}
      selected={false}
      marked={false}
    />,
  );
  const places = screen.getAllByRole('gridcell').map((c) => Number(c.getAttribute('aria-colindex')));
  expect(places).toEqual([1, 3, ...Array.from({ length: span.to - span.from }, (_, i) => span.from + i + 3)]);
  const [begin = 0, end = 0] = [layout.edges[span.from], layout.edges[span.to]];
  expect(begin).toBeLessThanOrEqual(500);
  expect(end).toBeGreaterThanOrEqual(650);
  expect(span.to).toBeLessThan(layout.columns.length);
  expect(screen.getAllByRole('gridcell')[2]).toHaveStyle({ gridColumnStart: String(span.from + 3) });
});

it('draws every column while no width is known, and when all of them stay', () => {
  const layout = layoutOf(['grade', 'letters'], [], {});
  expect(spanOf(layout, 0, 0)).toEqual({ from: 0, to: 2 });
  expect(spanOf(layoutOf(['grade'], ['grade'], {}), 0, 400)).toEqual({ from: 0, to: 1 });
});

it('puts a figure that stays in sight into a cell that covers what passes beneath', () => {
  const layout = layoutOf(['grade', 'spelling'], ['spelling'], {});
  render(
    <SheetRow
      row={row}
      index={0}
      id="row-0"
      top={0}
      layout={layout}
      span={spanOf(layout, 0, 0)}
      context={{ weights: { length: 1 }, exponent: 1 }}
      dense={false}
      selected={false}
      marked={false}
    />,
  );
  const [, stays, moves] = screen.getAllByRole('gridcell');
  expect(stays).toHaveClass('pin');
  expect(stays?.firstElementChild).toHaveClass('figure', 'plain', 'low');
  expect(moves).toHaveClass('figure');
  expect(moves).not.toHaveClass('pin');
});

it.each([
  [null, '–', 'It carries none of your phrases'],
  [{ phrase: 'night sky', demand: 12_100 }, '12,100', '“night sky”'],
  [{ phrase: 'night sky', demand: 0 }, '0', '“night sky”'],
  [{ phrase: 'night sky', demand: null }, 'unknown', '“night sky”: not known'],
])('shows how much the phrase it carries is looked for: %j', (carried, shown, title) => {
  const column = columnOf('demand');
  render(<>{column.cell?.({ ...row, carried }, { weights: {}, exponent: 1 })}</>);
  expect(screen.getByTitle(title).textContent).toBe(shown);
  expect([column.sort, column.falling]).toEqual(['demand', true]);
});
