export { type Attempt, type Head, type Journal, journalOf, type Keeping, opened } from './journal';
export { type Happening, next } from './keeping';
