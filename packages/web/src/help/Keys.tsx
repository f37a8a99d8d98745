import { Table, TableBody, TableCell, TableRow } from '@mui/material';

const keys: [string, string][] = [
  ['1 to 5', 'the stages'],
  ['Ctrl K', 'command palette'],
  ['.', 'fit the view'],
  ['Alt and arrows', 'straight views; Alt Home for the oblique one'],
  ['[ and ]', 'step through all that lies under the pointer, front to back'],
  [',', 'pick bodies, faces, edges or points'],
  ['m', 'measure distance and angle'],
  ['x, y, z', 'section plane across an axis'],
  ['i', 'show only what is picked, or all again'],
  ['Ctrl C, X, V', 'copy, cut, paste lines; Delete removes them'],
  ['Shift or Ctrl click', 'choose several lines'],
  ['Enter', 'open a focused chip; Escape leaves it unchanged'],
  ['Tab', 'walk the chips of a line'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Ctrl Enter', 'run'],
  ['arrows on a card’s head', 'move the card; with Shift size it'],
  ['click, drag, double click', 'on curves: a marker, closer, all'],
  ['?', 'the guide at what is in view'],
];

/** Keys and conventions. */
export function Keys() {
  return (
    <>
      <h2>Keys and conventions</h2>
      <Table size="small" sx={{ width: 'auto', '& td': { border: 0, p: '3px 14px 3px 0', fontSize: 13 } }}>
        <TableBody>
          {keys.map(([k, what]) => (
            <TableRow key={k}>
              <TableCell>
                <kbd>{k}</kbd>
              </TableCell>
              <TableCell>{what}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <p>
        Time dependence is exp(+jωt); phasors are peak values. Fields and patterns are for 1 W incident at the port. Angles: theta from +z, phi from
        +x. Gain includes dielectric loss, realised gain mismatch as well. S refers to each port’s own impedance unless Read says otherwise.
      </p>
    </>
  );
}
