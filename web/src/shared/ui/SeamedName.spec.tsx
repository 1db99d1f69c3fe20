import { render } from '@testing-library/react';
import { expect, it } from 'vitest';

import { SeamedName } from './SeamedName';

const seams = (label: string, starts: number[]) =>
  [...render(<SeamedName label={label} starts={starts} />).container.querySelectorAll('.seam')].map(
    (e) => `${e.textContent}:${e.className}`,
  );

it('sets words in turn, and lets a little one between two others join them', () => {
  expect(seams('breadandbutter', [0, 5, 8])).toEqual(['bread:seam', 'and:seam joint', 'butter:seam other']);
  expect(seams('onahook', [0, 2, 3])).toEqual(['on:seam', 'a:seam joint', 'hook:seam other']);
  expect(seams('inkpot', [3, 3])).toEqual(['ink:seam', 'pot:seam other']);
});
