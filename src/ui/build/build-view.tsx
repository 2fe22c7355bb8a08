'use client';
import { type Parts, Tabs } from '../look/tabs';
import dynamic from 'next/dynamic';
import { BillView } from './bill-view';
import { BoardView } from './board-view';
import { ChecklistView } from './checklist-view';
import { GearView } from './gear-view';
import { LeadsView } from './leads-view';
import { PowerView } from './power-view';
import { RackView } from './rack-view';
import { StageView } from './stage-view';

// The book brings the writers of drawings with it; they are fetched when it is opened.
const BookView = dynamic(() => import('./book-view').then((m) => m.BookView), {
  loading: () => <p style={{ padding: 16 }}>Opening the book …</p>,
});

const LabelsView = dynamic(() => import('./labels-view').then((m) => m.LabelsView), {
  loading: () => <p style={{ padding: 16 }}>Drawing labels …</p>,
});

const PARTS: Parts = {
  board: { label: 'Board', view: BoardView },
  rack: { label: 'Rack', view: RackView },
  stage: { label: 'Stage', view: StageView },
  power: { label: 'Power', view: PowerView },
  leads: { label: 'Leads', view: LeadsView },
  gear: { label: 'Gear', view: GearView },
  bill: { label: 'Bill and packing', view: BillView },
  checklist: { label: 'Checklist', view: ChecklistView },
  labels: { label: 'Labels', view: LabelsView },
  book: { label: 'Rig book', view: BookView },
};

/** What is built and carried: board, rack, stage, power, leads, gear, packing, labels, and all of it on paper. */
export const BuildView = () => <Tabs parts={PARTS} />;
