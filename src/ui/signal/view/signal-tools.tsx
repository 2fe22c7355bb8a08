import { ActionIcon, Checkbox, Menu, Tooltip } from '@mantine/core';
import { IconAdjustmentsHorizontal, IconLayoutSidebarRight } from '@tabler/icons-react';
import { ExportMenu } from '../export-menu';
import { METER_ROWS } from '../meter-rows';
import { Arrivals } from './arrivals';

/** The row above the walk: what arrives, the rows of the meter bridge, files, and the side. */
export function SignalTools({
  rows,
  onRows,
  onSide,
}: {
  rows: readonly string[];
  onRows: (rows: string[]) => void;
  onSide: () => void;
}) {
  return (
    <div className="signal-tools">
      <Arrivals />
      <RowsMenu rows={rows} onRows={onRows} />
      <ExportMenu />
      <Tooltip label="Show or hide the side">
        <ActionIcon variant="default" aria-label="Show or hide the side" onClick={onSide}>
          <IconLayoutSidebarRight size={17} />
        </ActionIcon>
      </Tooltip>
    </div>
  );
}

function RowsMenu({ rows, onRows }: { rows: readonly string[]; onRows: (rows: string[]) => void }) {
  const turn = (row: string) =>
    onRows(
      METER_ROWS.map((x) => x.id).filter((id) =>
        id === row ? !rows.includes(id) : rows.includes(id),
      ),
    );
  return (
    <Menu closeOnItemClick={false} position="bottom-end">
      <Menu.Target>
        <Tooltip label="Rows of the meter bridge">
          <ActionIcon variant="default" aria-label="Choose the rows of the meter bridge">
            <IconAdjustmentsHorizontal size={17} />
          </ActionIcon>
        </Tooltip>
      </Menu.Target>
      <Menu.Dropdown>
        {METER_ROWS.map((r) => (
          <Menu.Item key={r.id} onClick={() => turn(r.id)}>
            <Checkbox
              readOnly
              tabIndex={-1}
              size="xs"
              className="signal-view-checkbox"
              checked={rows.includes(r.id)}
              label={`${r.name}: ${r.explain}`}
            />
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
