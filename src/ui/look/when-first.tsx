import { type ReactNode, useState } from 'react';

/** What is there from the first time that it is wanted on, so that it can close as it opened. */
export function WhenFirst({ wanted, children }: { wanted: boolean; children: ReactNode }) {
  const [was, setWas] = useState(false);
  if (wanted && !was) setWas(true);
  return was ? children : null;
}
