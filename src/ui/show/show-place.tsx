'use client';
import dynamic from 'next/dynamic';
import { laterPart } from '../look/later';
import { Tabs, type Views } from '../look/tabs';
import { Differing } from './parts';
import { WithBook } from './use-book';
import './show.css';

// Each part is a script of its own.
const NowView = dynamic(laterPart('now', () => import('./now/now-view').then((m) => m.NowView)));
const CheckView = dynamic(
  laterPart('check', () => import('./check-view').then((m) => m.CheckView)),
);
const FinderView = dynamic(
  laterPart('finder', () => import('./finder/finder-view').then((m) => m.FinderView)),
);
const DrillView = dynamic(
  laterPart('drill', () => import('./drill-view').then((m) => m.DrillView)),
);
const LogView = dynamic(laterPart('log', () => import('./log/log-view').then((m) => m.LogView)));
const CalendarView = dynamic(
  laterPart('calendar', () => import('./calendar-view').then((m) => m.CalendarView)),
);
const TrainerView = dynamic(
  laterPart('trainer', () => import('./trainer-view').then((m) => m.TrainerView)),
);

const VIEWS: Views<'show'> = {
  now: NowView,
  check: CheckView,
  finder: FinderView,
  drill: DrillView,
  log: LogView,
  calendar: CalendarView,
  trainer: TrainerView,
};

/** What is used standing up, in the dark, with something going wrong; and what prepares for it. */
export const ShowPlace = () => (
  <WithBook>
    <Differing />
    <Tabs place="show" views={VIEWS} />
  </WithBook>
);
