import { useEffect, useState } from 'react';

/**
 * Letters typed into a filter, and what types them: `onSettled` is told once typing rests for `wait` milliseconds. What
 * is given from outside is taken over; what only comes back of what settled is not, as more may have been typed since.
 * Blanks are left out, unless there are to be `words`.
 */
export function useLetters(
  given: string,
  wait: number,
  onSettled: (letters: string) => void,
  words = false,
): [string, (typed: string) => void] {
  const [typed, setTyped] = useState(given);
  const [known, setKnown] = useState(given);
  const [settled, setSettled] = useState(given);
  if (known !== given) {
    setKnown(given);
    if (given !== settled) {
      setSettled(given);
      setTyped(given);
    }
  }
  useEffect(() => {
    if (typed === settled) return;
    const timer = setTimeout(() => {
      setSettled(typed);
      onSettled(typed);
    }, wait);
    return () => {
      clearTimeout(timer);
    };
  }, [typed, settled, wait, onSettled]);
  return [
    typed,
    (next) => {
      setTyped((words ? next : next.replace(/\s/g, '')).slice(0, 63));
    },
  ];
}
