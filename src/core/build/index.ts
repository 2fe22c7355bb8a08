export { checklist, cureEnds, type Part, type Step, USUAL_CURE_HOURS } from './checklist';
export { colourCode, leadCalled, leadCodes } from './lead-codes';
export {
  type Cut,
  cutLength,
  cutList,
  type CutList,
  makingOf,
  type Plug,
  USUAL_MAKING,
  plugWords,
} from './cut-list';
export { gearSums, gramsOf, TWO_PERSONS_GRAMS } from './gear';
export { type InputLine, inputList } from './input-list';
export {
  HEADROOM,
  type Load,
  loadsOf,
  misfit,
  needOf,
  placeKey,
  placesOf,
  quarrel,
  takersOf,
  unfed,
  voltagesOf,
} from './power';
export { betterWords, type Fed, planPower, type PowerPlan, type Starved } from './power-plan';
export { AIMS, PATIENCE } from './power-program';
export {
  leadPlugs,
  type PowerLead,
  powerLeads,
  powerLeadsByPlugs,
  powerPlugWords,
  USUAL_POWER_PLUG,
} from './power-leads';
export { powerRemarks } from './power-remarks';
export { billOf, type BillLine, budgetOf, type BudgetLine } from './bill';
export { judge, type Judged } from './board';
export { type Clash, HITS, LAYOUT_PRICE } from './board-rules';
export { standing } from './board-row';
export { type Path } from './board-ways';
export { boardModel, type Model, placeAt, placesNow, type XY } from './board-model';
export { BOARD_SIZES } from './board-sizes';
export { clashWords } from './board-words';
export { BUILD_REMARKS, buildRemarks } from './build-remarks';
export { COUNTRIES, type Country, plugFits, inSentence, voltsIn } from './countries';
export { PLUG_CLEARANCE, sizeOf, spotsOf, spotsOnBox } from './footprint';
export {
  type LayoutFigures,
  type LayoutProposal,
  type LayoutChoice,
  proposeLayout,
} from './layout';
export { type LeadNeed, leadNeeds } from './lead-needs';
export {
  checkCountries,
  countryOf,
  unknownCountries,
  mainsMisfit,
  mainsOf,
  mainsSums,
  misfitsAt,
} from './mains';
export { type Packing, packingOf, type Piece } from './packing';
export { freePlace, snapped } from './place';
export { pressedDevices } from './pressed';
export {
  BETWEEN_MM,
  type Mounted,
  draggedPlace,
  freeRackPlace,
  mountedIn,
  PANEL_MM,
  panelPlan,
  rackClashes,
  rackSums,
  UNIT_MM,
  unitsOf,
} from './rack';
