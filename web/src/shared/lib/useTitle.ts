import { useEffect } from 'react';

const OURS = 'Vine Tag';

/** Names the page in the browser's tabs and history: what it is first, then whose. */
export function useTitle(...parts: readonly (string | undefined)[]): void {
  const title = [...parts.filter(Boolean), OURS].join(' · ');
  useEffect(() => {
    document.title = title;
  }, [title]);
}
