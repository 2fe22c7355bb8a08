'use client';
import { Tabs, type Views } from '../look/tabs';
import dynamic from 'next/dynamic';
import { BillView } from './bill-view';
import { BoardView } from './board/board-view';
import { ChecklistView } from './checklist-view';
import { GearView } from './gear-view';
import { LeadsView } from './leads-view';
import { PowerView } from './power/power-view';
import { RackView } from './rack/rack-view';
import { StageView } from './stage-view';

// The book brings the writers of drawings with it; they are fetched when it is opened.
const BookView = dynamic(() => import('./book-view').then((m) => m.BookView), {
  loading: () => <p className="book-view-box">Opening the book …</p>,
});

const LabelsView = dynamic(() => import('./labels-view').then((m) => m.LabelsView), {
  loading: () => <p className="book-view-box">Drawing labels …</p>,
});

const OwnGearView = dynamic(() => import('./own-gear/own-gear-view').then((m) => m.OwnGearView), {
  loading: () => <p className="book-view-box">Opening your gear …</p>,
});

const VIEWS: Views<'build'> = {
  board: BoardView,
  rack: RackView,
  stage: StageView,
  power: PowerView,
  leads: LeadsView,
  gear: GearView,
  own: OwnGearView,
  bill: BillView,
  checklist: ChecklistView,
  labels: LabelsView,
  book: BookView,
};

/** What is built and carried: board, rack, stage, power, leads, gear, packing, labels, and all of it on paper. */
export const BuildView = () => <Tabs place="build" views={VIEWS} />;
