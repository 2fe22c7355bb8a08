import {
  CartesianGrid,
  Line,
  LineChart,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { Scored } from '../../core/show/book';

/** Points over time, week by week as they were earned. */
export const ScoreChart = ({ scores }: { scores: readonly Scored[] }) => (
  <div className="score-chart" role="img" aria-label={`Points of ${scores.length} cases over time`}>
    <ResponsiveContainer width="100%" height={180}>
      <LineChart data={scores.map((s) => ({ at: s.at.slice(0, 10), points: s.points }))}>
        <CartesianGrid stroke="var(--rule)" />
        <XAxis dataKey="at" stroke="var(--faint)" fontSize={12} />
        <YAxis domain={[0, 100]} stroke="var(--faint)" fontSize={12} width={34} />
        <Tooltip contentStyle={{ background: 'var(--raised)', borderColor: 'var(--rule)' }} />
        <Line dataKey="points" stroke="var(--ink)" isAnimationActive={false} dot />
      </LineChart>
    </ResponsiveContainer>
  </div>
);
