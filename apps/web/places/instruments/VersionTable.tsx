import { settingWords, transferWords } from '@barys/core/setup';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { ConfigurationVersion } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { showMoment } from '@/server/dates';

const LINES: readonly (readonly [what: string, value: (one: ConfigurationVersion) => string])[] = [
  [
    'Range',
    (one) => `${formatPlain(one.lrv)} … ${formatPlain(one.urv)} ${PRESSURE_UNITS[one.inputUnit].label}`,
  ],
  ['Output', (one) => `${formatPlain(one.outputLow)} … ${formatPlain(one.outputHigh)} ${one.outputUnit}`],
  ['Transfer function', (one) => transferWords(one.transferFunction)],
  ['Display', (one) => `${formatPlain(one.displayLow)} … ${formatPlain(one.displayHigh)} ${one.displayUnit}`],
  ['Damping', (one) => `${formatPlain(one.dampingS)} s`],
  ...(
    [
      ['Damping of the display', 'displayDampingS'],
      ['Application', 'application'],
      ['Start view', 'startView'],
      ['Output driven by', 'drivenBy'],
      ['Switching points', 'switchingPoints'],
    ] as const
  ).map(
    ([what, key]) => [what, (one: ConfigurationVersion) => settingWords(one, key) || 'not entered'] as const,
  ),
  ['Who', (one) => one.madeBy],
  ['When', (one) => showMoment(one.madeAt)],
  ['Why', (one) => one.reason],
];

/** Versions side by side; what differs between them is set in bold. */
export function VersionTable({ versions }: { versions: readonly ConfigurationVersion[] }) {
  return (
    <Box sx={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Versions side by side">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell />
            {versions.map(({ version }) => (
              <TableCell key={version}>Version {version}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {LINES.map(([what, value]) => {
            const texts = versions.map(value);
            const differs = new Set(texts).size > 1;
            return (
              <TableRow key={what}>
                <TableCell sx={{ color: 'text.secondary' }}>{what}</TableCell>
                {versions.map(({ version }, index) => (
                  <TableCell key={version} sx={{ fontWeight: differs ? 700 : 400 }}>
                    {texts[index]}
                  </TableCell>
                ))}
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </Box>
  );
}
