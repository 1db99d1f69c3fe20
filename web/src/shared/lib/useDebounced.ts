import { useEffect, useState } from 'react';

/** The value as it was once it has not changed for `wait` milliseconds. */
export function useDebounced<T>(value: T, wait: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => {
      setSettled(value);
    }, wait);
    return () => {
      clearTimeout(timer);
    };
  }, [value, wait]);
  return settled;
}
