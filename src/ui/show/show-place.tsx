'use client';
import { Tabs, type Views } from '../look/tabs';
import { CalendarView } from './calendar-view';
import { CheckView } from './check-view';
import { DrillView } from './drill-view';
import { FinderView } from './finder/finder-view';
import { LogView } from './log/log-view';
import { NowView } from './now/now-view';
import { Differing } from './parts';
import { TrainerView } from './trainer-view';
import { WithBook } from './use-book';
import './show.css';

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
