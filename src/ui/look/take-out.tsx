import { ActionIcon, Tooltip } from '@mantine/core';
import { IconTrash } from '@tabler/icons-react';

/** Takes one line out of a list; `what` says which, for those who do not see the line. */
export function TakeOut({ what, onClick }: { what: string; onClick: () => void }) {
  return (
    <Tooltip label="Take out">
      <ActionIcon size="sm" variant="default" aria-label={what} onClick={onClick}>
        <IconTrash size={14} />
      </ActionIcon>
    </Tooltip>
  );
}
