export { withChanges } from '../../core/show/book';
