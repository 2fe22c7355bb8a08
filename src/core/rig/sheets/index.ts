export { innerFigure } from './assembled-kind';
export { kindsFor } from './own-kinds';
export {
  kindIdOf,
  kindOfSheet,
  learnSheets,
  sheetIdOf,
  withMarks,
  withoutMarks,
} from './own-kinds';
export { sheetProblems } from './sheet-problems';
export {
  type Assembly,
  type BoxControl,
  type ChangedKind,
  type InnerJack,
  type Sheet,
  type SheetFigure,
  sheetSchema,
} from './sheet-schema';
export {
  boxAround,
  sheetOfKind,
  withControlOf,
  withControlsOf,
  withoutPart,
  withOwnSwitch,
  withPartBehind,
  withPartBeside,
} from './authoring';
export { checkSheet, readSheet, writeSheet } from './read-sheet';
