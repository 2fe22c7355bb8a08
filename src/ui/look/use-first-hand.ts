import { useEffect, useState } from 'react';
import { atFirstHand } from './first-hand';

/** Whether somebody is at the page: a pointer moved over it, a key or a finger pressed. */
export function useFirstHand(): boolean {
  const [isHere, setHere] = useState(false);
  useEffect(() => atFirstHand(() => setHere(true)), []);
  return isHere;
}
