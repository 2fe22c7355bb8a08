export { type Block, bookOf, type BookPart, cautionsFor, drawnOn } from './book';
export { type BookFoot, bookPages } from './book-pdf';
export { boardSvg } from './board-svg';
export { type Looked } from './drawn';
export { rackSvg } from './rack-svg';
export { stageSvg } from './stage-svg';
export { billCsv, cutListCsv } from './build-csv';
export { namesFromCsv, namesToCsv } from './names-csv';
export { programsFromCsv, programsToCsv } from './programs-csv';
export { sheetsFromCsv, sheetsToCsv } from './sheets-csv';
export { gearFromCsv, gearToCsv } from './gear-csv';
export { wiringFromCsv, wiringToCsv } from './wiring-csv';
export { songsFromChordPro, songsToChordPro } from './chordpro';
export { readCsv, toCsv } from './csv';
export { toDot } from './dot';
export { type Graph, walkGraph, wiringGraph } from './graph';
export { toGraphml } from './graphml';
export {
  LABEL_KINDS,
  type LabelKind,
  type LabelSheet,
  labelSheets,
  MARGIN_MM,
  type Paper,
  PAPERS,
} from './labels/sheets';
export { isOnlyHere } from './labels/cases';
export { midiChartCsv, programMapCsv } from './midi-csv';
export { powerPlanCsv } from './power-csv';
export { type Lead as SmfLead, setToSmf, songToSmf } from './smf';
export { readSmf, type SmfRead, songsFromSmf } from './smf-read';
export { runningOrderToCsv, setsFromCsv, setsToCsv } from './sets-csv';
export { type Blanks, songsFromCsv, songsToCsv } from './songs-csv';
export { walkSvg } from './walk-svg';
export { wiringSvg } from './wiring-svg';
