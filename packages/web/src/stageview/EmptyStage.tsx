import { Stack } from '@mui/material';
import { useModel } from '../project/model.ts';
import { useProject } from '../project/store.ts';
import { showDialog } from '../ui/dialogs.ts';
import { Tool } from '../kit/Tool.tsx';

/** How to begin, where nothing stands yet. */
export function EmptyStage() {
  const empty = useProject((s) => s.document?.lines.length === 0);
  const ready = useModel((s) => s.ready);
  if (!empty || !ready) return null;
  return (
    <Stack
      className="over"
      role="note"
      // Above the axes, which stand in the middle.
      sx={{ inset: '0 0 36% 0', alignItems: 'center', justifyContent: 'center', gap: 1, textAlign: 'center', '&&': { pointerEvents: 'none' } }}
    >
      <p>Nothing stands here yet.</p>
      <p className="quiet">Add a body from the menus above and place it with the pointer,</p>
      <p className="quiet">
        or <Tool onClick={() => showDialog('designs')}>Start from a design</Tool> or <Tool onClick={() => showDialog('import')}>Bring in a file</Tool>
      </p>
    </Stack>
  );
}
