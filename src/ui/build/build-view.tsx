'use client';
import { laterPart } from '../look/later';
import { Tabs, type Views } from '../look/tabs';
import dynamic from 'next/dynamic';

// The book brings the writers of drawings with it; they are fetched when it is opened.
const BookView = dynamic(
  laterPart('book', () => import('./book-view').then((m) => m.BookView)),
  {
    loading: () => <p className="book-view-box">Opening the book …</p>,
  },
);

const LabelsView = dynamic(
  laterPart('labels', () => import('./labels-view').then((m) => m.LabelsView)),
  {
    loading: () => <p className="book-view-box">Drawing labels …</p>,
  },
);

const OwnGearView = dynamic(
  laterPart('own gear', () => import('./own-gear/own-gear-view').then((m) => m.OwnGearView)),
  {
    loading: () => <p className="book-view-box">Opening your gear …</p>,
  },
);

// Each part is a script of its own.
const BoardView = dynamic(
  laterPart('board', () => import('./board/board-view').then((m) => m.BoardView)),
);
const RackView = dynamic(
  laterPart('rack', () => import('./rack/rack-view').then((m) => m.RackView)),
);
const StageView = dynamic(
  laterPart('stage', () => import('./stage-view').then((m) => m.StageView)),
);
const PowerView = dynamic(
  laterPart('power', () => import('./power/power-view').then((m) => m.PowerView)),
);
const LeadsView = dynamic(
  laterPart('leads', () => import('./leads-view').then((m) => m.LeadsView)),
);
const GearView = dynamic(laterPart('gear', () => import('./gear-view').then((m) => m.GearView)));
const BillView = dynamic(laterPart('bill', () => import('./bill-view').then((m) => m.BillView)));
const ChecklistView = dynamic(
  laterPart('checklist', () => import('./checklist-view').then((m) => m.ChecklistView)),
);

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
