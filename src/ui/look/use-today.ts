import { useEffect, useState } from 'react';

/** Today as a date, in the time of the place. */
export function today(): string {
  const d = new Date();
  return `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;
}

/** How often it is looked whether a new day has begun, in ms. */
const LOOK_MS = 30_000;

/** Today, and tomorrow once midnight has passed on a page that stays open. */
export function useToday(): string {
  const [day, setDay] = useState(today);
  useEffect(() => {
    const timer = setInterval(() => setDay(today()), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return day;
}
