import { render } from '@testing-library/react';
import { expect, it } from 'vitest';

import { concepts } from '../lib/concepts';
import { mistypedBy } from '../lib/mistyped';
import { WeightMark } from './WeightMark';

it('has a shape of its own for every weight, and its word', () => {
  const shapes = concepts().weights.map(({ name, word }) => {
    const { container, unmount } = render(<WeightMark weight={name} />);
    expect(container).toHaveTextContent(word);
    const path = container.querySelector('path')?.getAttribute('d');
    unmount();
    return path;
  });
  expect(new Set(shapes).size).toBe(concepts().weights.length);
});

it('keeps its word for those who hear the page where there is no room', () => {
  const { container } = render(<WeightMark weight="think" wordless />);
  expect(container).toHaveTextContent('Think');
});

it('says how a mistype comes about, and of a way nobody knows here its name', () => {
  expect(mistypedBy('slip')).toBe('a slip of the finger');
  expect(mistypedBy('dreamt')).toBe('dreamt');
});
