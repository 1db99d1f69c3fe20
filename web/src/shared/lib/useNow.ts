import { useEffect, useState } from 'react';

/** The time in milliseconds, refreshed every `every` milliseconds. */
export function useNow(every = 20_000): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => {
      setNow(Date.now());
    }, every);
    return () => {
      clearInterval(timer);
    };
  }, [every]);
  return now;
}
