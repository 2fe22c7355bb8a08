import {
  IconAlertOctagonFilled,
  IconAlertTriangleFilled,
  IconInfoCircleFilled,
  IconSquareRotatedFilled,
} from '@tabler/icons-react';
import { countOf, type Severity } from '../../core/findings/finding';

const SHAPES = {
  danger: IconAlertOctagonFilled,
  fault: IconAlertTriangleFilled,
  caution: IconSquareRotatedFilled,
  advice: IconInfoCircleFilled,
};

/** A severity by shape and word, besides its colour. */
export function SeverityMark({
  severity,
  count,
  quiet,
  isShort,
}: {
  severity: Severity;
  count?: number;
  quiet?: boolean;
  /** The count without the word, where the word stands elsewhere. */
  isShort?: boolean;
}) {
  const Shape = SHAPES[severity];
  return (
    <span className="sev" data-severity={severity}>
      <Shape
        size={quiet ? 11 : 15}
        aria-hidden={!quiet}
        aria-label={quiet ? severity : undefined}
      />
      {!quiet && (count === undefined ? severity : isShort ? count : countOf(count, severity))}
    </span>
  );
}
