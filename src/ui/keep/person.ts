import { cutText } from '../../core/rig';

/** Who works in this browser: a name that others read; nobody has to give one. */
const KEY = 'yantrel name';

export function personName(): string | null {
  try {
    return localStorage.getItem(KEY);
  } catch {
    return null;
  }
}

/** Keeps the name; an empty one is none. */
export function setPersonName(name: string): void {
  try {
    const kept = cutText(name.trim(), 60);
    if (kept) localStorage.setItem(KEY, kept);
    else localStorage.removeItem(KEY);
  } catch {
    // A browser that keeps nothing asks again next time.
  }
}
