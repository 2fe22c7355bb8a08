export {
  type Attempt,
  type Happening,
  type Head,
  type Journal,
  journalOf,
  type Keeping,
  next,
  opened,
} from './keeping';
