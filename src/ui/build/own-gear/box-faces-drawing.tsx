import { Button, Group } from '@mantine/core';
import { useMemo } from 'react';
import { boxFaces, type Face } from '../../../core/draw/box-faces';
import { spotsOnBox } from '../../../core/build';
import { kindOfSheet, type Sheet } from '../../../core/rig';
import { SpotTable } from '../spot-table';

/** Pixels to a mm where there is room, and the widest a face is drawn. */
const SCALE = 2;
const WIDEST = 760;
/** Radius of a jack, in mm; height of one row of labels, in pixels. */
const JACK = 6;
const ROW = 15;

/** The box from the sides that have jacks, and where each jack is, which can be changed. */
export function BoxFaces({ sheet, onChange }: { sheet: Sheet; onChange: (next: Sheet) => void }) {
  const kind = kindOfSheet(sheet);
  const faces = useMemo(() => boxFaces(sheet), [sheet]);
  const { size } = kind;
  return (
    <>
      <h3>From the sides of its jacks</h3>
      <div className="own-gear-faces">
        {faces.map((face) => (
          <FaceDrawing key={face.edge} name={sheet.name} face={face} />
        ))}
      </div>
      {size && (
        <details>
          <summary>Where the jacks are</summary>
          <p className="faint common-text-3">
            Seen from above, the switch towards you: from the left end of the rear and front edges,
            from the rear end of the sides. Usual for such a box where nothing is said.
          </p>
          <SpotTable
            spots={spotsOnBox(kind, size)}
            size={size}
            onSet={(spot) => onChange({ ...sheet, jackSpots: { ...sheet.jackSpots, ...spot } })}
          />
          <Group mt={8}>
            <Button
              size="compact-xs"
              variant="default"
              disabled={!sheet.jackSpots}
              onClick={() => onChange({ ...sheet, jackSpots: undefined })}
            >
              As usual for such a box
            </Button>
          </Group>
        </details>
      )}
    </>
  );
}

const FROM: Record<Face['edge'], string> = {
  rear: 'from behind',
  front: 'from the front',
  left: 'from its left',
  right: 'from its right',
};

/** One side of the box, to scale, as one sees it who stands before it; labels in as many rows as they need. */
function FaceDrawing({ name, face }: { name: string; face: Face }) {
  const scale = Math.min(SCALE, WIDEST / face.width);
  const rows = labelRows(face, scale);
  const height = face.height * scale;
  const left = Math.max(0, ...rows.map((r) => r.half - r.x));
  const right = Math.max(0, ...rows.map((r) => r.x + r.half - face.width * scale));
  const width = face.width * scale + left + right + 2;
  const deep = height + (Math.max(...rows.map((r) => r.row)) + 1) * ROW + 6;
  return (
    <figure className="own-gear-face">
      <figcaption>
        {FROM[face.edge]}, {Math.round(face.width)} mm
      </figcaption>
      <svg
        viewBox={`${-left - 1} -1 ${width} ${deep}`}
        width={width}
        role="img"
        aria-label={`${name} ${FROM[face.edge]}: ${face.jacks.map((j) => j.label).join(', ')}`}
        data-face={face.edge}
      >
        <rect
          width={face.width * scale}
          height={height}
          rx={3}
          fill="var(--raised)"
          stroke="var(--ink)"
        />
        {rows.map(({ id, label, x, row }) => (
          <g key={id} data-face-jack={id}>
            <line x1={x} x2={x} y1={height / 2} y2={height + row * ROW + 5} stroke="var(--rule)" />
            <circle
              cx={x}
              cy={height / 2}
              r={JACK * Math.max(1, scale)}
              fill="var(--tape)"
              stroke="var(--ink)"
              strokeWidth={2}
            />
            <text
              x={x}
              y={height + row * ROW + 15}
              textAnchor="middle"
              fontSize={12}
              fill="var(--ink)"
            >
              {label}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}

/** Width of a letter of a label, about, in pixels. */
const LETTER = 6.4;

/** Labels below their jacks, each in the first row in which it has room. */
function labelRows(face: Face, scale: number) {
  const ends: number[] = [];
  return face.jacks.map(({ id, label, x }) => {
    const half = (label.length * LETTER) / 2 + 4;
    const at = x * scale;
    let row = ends.findIndex((end) => end <= at - half);
    if (row < 0) row = ends.length;
    ends[row] = at + half;
    return { id, label, x: at, half, row };
  });
}
