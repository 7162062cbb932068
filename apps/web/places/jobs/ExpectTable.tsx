import { plannedPoints } from '@barys/core/procedure';
import { acceptedOutput } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { toleranceOf, type Configuration, type Instrument } from '@barys/store/registers';
import { limitsOf } from '@barys/store/runs';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { Figure } from '@/ui/Figure';
import { figuresFor, pointPercent } from '@/ui/figures';

/** What to apply at each point, and what may be read there. */
export function ExpectTable({
  instrument,
}: {
  instrument: Pick<Instrument, 'procedure' | 'tolerance'> & { readonly configuration: Configuration };
}) {
  const { configuration, procedure } = instrument;
  const { content } = procedure;
  const figures = figuresFor(configuration);
  const limits = limitsOf(toleranceOf(instrument));
  const rising = content.direction === 'down' ? 'down' : 'up';
  const first = plannedPoints({ ...content, cycles: 1 }, configuration).filter(
    ({ direction }) => direction === rising,
  );
  return (
    <Table size="small">
      <TableHead>
        <TableRow>
          <TableCell>Point</TableCell>
          <TableCell align="right">Apply, {figures.inputUnit}</TableCell>
          <TableCell align="right">Expect, {figures.outputUnit}</TableCell>
          <TableCell align="right">Lowest</TableCell>
          <TableCell align="right">Highest</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {first.map(({ position, nominalPercent, applied }) => {
          const { lowest, highest } = acceptedOutput(configuration, limits, applied);
          return (
            <TableRow key={position}>
              <TableCell sx={{ whiteSpace: 'nowrap' }}>{pointPercent(nominalPercent)} %</TableCell>
              {[
                figures.input(applied),
                figures.output(expectedOutput(configuration, applied)),
                figures.output(lowest),
                figures.output(highest),
              ].map((text, index) => (
                <TableCell key={index} align="right">
                  <Figure>{text}</Figure>
                </TableCell>
              ))}
            </TableRow>
          );
        })}
      </TableBody>
    </Table>
  );
}
