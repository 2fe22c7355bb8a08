export { gainLadder, type Rung } from './ladder';
export { type Preview, previewEdits } from './preview';
export { analyse, Analyser, analyseSound, type Report, type SoundReport } from './report';
