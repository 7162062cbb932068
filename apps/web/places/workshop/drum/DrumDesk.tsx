'use client';
import { workLevelRange } from '@barys/core/level';
import { formatFixed, formatPlain, formatSigned } from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { LevelDrawing } from '@/places/workshop/level/LevelDrawing';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { saveCsv } from '@/ui/saveCsv';
import { Sheet } from '@/ui/Sheet';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import { computeDrum, computeHotCheck, csvOfDrum, LEVELS, type DrumResult, type DrumRow } from './compute';
import { DrumForm } from './DrumForm';
import { IndicationCurves } from './IndicationCurves';
import { Unworkable } from '../deskFields';
import { isFault } from '../typed';
import { orDrumFault, unitsOfDrum, type DrumFields } from './fields';

/** Level in a boiler drum: its range by the densities, what it shows at other pressures, and the hot check. */
export function DrumDesk({ initial }: { initial: DrumFields }) {
  const [fields, change] = useAddress(initial);
  const got = orDrumFault(() => computeDrum(fields));
  return (
    <Columns columns="minmax(300px, 0.75fr) 2.1fr">
      <Sheet title="What is there" sx={{ '@media print': { display: 'none' } }}>
        <DrumForm fields={fields} change={change} fault={isFault(got) ? got : null} />
      </Sheet>
      {isFault(got) ? (
        <Unworkable title="Range" message={got.message} />
      ) : (
        <Results fields={fields} result={got} />
      )}
    </Columns>
  );
}

function Results({ fields, result }: { fields: DrumFields; result: DrumResult }) {
  const units = unitsOfDrum(fields);
  const { measurement, taps } = result;
  const [height, range] = [unitLabel(units.height), unitLabel(units.range)];
  const shown = (metres: number) => formatPlain(Number(convert(metres, 'm', units.height).toPrecision(4)));
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Columns columns="0.75fr 1fr">
        <Sheet title="Drum, pot and leg">
          <LevelDrawing
            measurement={measurement}
            levelM={(taps.zeroM + taps.fullM) / 2}
            tag="Transmitter"
            height={shown}
            dimension={shown}
            unit={height}
          />
        </Sheet>
        <Stack sx={{ gap: 1.5 }}>
          <Sheet title={`Hot: set 4 mA at ${result.hot[0]} and 20 mA at ${result.hot[1]} ${range}`}>
            <Facts
              facts={[
                ...result.densities.map(
                  ([what, density]) =>
                    [what, <Figure key={what}>{`${formatFixed(density, 1)} kg/m³`}</Figure>] as const,
                ),
                [
                  'Cold, at 20 °C',
                  <Figure key="cold">{`${result.cold[0]} … ${result.cold[1]} ${range}`}</Figure>,
                ],
              ]}
            />
            <Working of="the range" steps={() => workLevelRange(measurement).working} />
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Densities: IAPWS-IF97, saturated in the drum, at its own temperature in the leg.
            </Typography>
          </Sheet>
          <HotSheet fields={fields} result={result} />
        </Stack>
      </Columns>
      <ShownSheet rows={result.rows} />
      <Steps />
    </Stack>
  );
}

function HotSheet({ fields, result }: { fields: DrumFields; result: DrumResult }) {
  const found = orDrumFault(() => computeHotCheck(fields, result));
  if (isFault(found))
    return (
      <Sheet title="Hot check">
        <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          {found.message}
        </Typography>
      </Sheet>
    );
  return (
    <Sheet title="Hot check">
      <Facts
        facts={[
          ['True level by the glass', <Figure key="true">{`${found.truePercent} %`}</Figure>],
          ['The transmitter has to show', <Figure key="expected">{`${found.expectedPercent} %`}</Figure>],
          ['Densities explain', <Figure key="explained">{`${found.explained} %`}</Figure>],
          ['Left unexplained', <Figure key="unexplained">{`${found.unexplained} %`}</Figure>],
        ]}
      />
      <Typography variant="body2" sx={{ mt: 1 }}>
        What is left may be a zero, a leg that is not full, or a leak. One school enters an offset hot; by
        default Barys takes the densities, and an offset is a bias that holds at one pressure and level only.
        With an offset that makes the transmitter right here, this error would be left elsewhere:
      </Typography>
      <ShownTable
        label="Error left with the offset"
        rows={found.left}
        show={(percent) => formatSigned(percent, 1)}
      />
    </Sheet>
  );
}

function ShownTable({
  label,
  rows,
  show,
}: {
  label: string;
  rows: readonly DrumRow[];
  show: (percent: number) => string;
}) {
  return (
    <DataTable
      label={label}
      rows={rows}
      keyOf={({ at }) => at}
      columns={[
        ['Drum', ({ at }) => at],
        ...LEVELS.map(
          (level, index) =>
            [
              `${level} %`,
              ({ shown }: DrumRow) => <Figure>{show(shown[index] ?? 0)}</Figure>,
              'right',
            ] as const,
        ),
      ]}
    />
  );
}

function ShownSheet({ rows }: { rows: readonly DrumRow[] }) {
  return (
    <Sheet
      title="What it shows at other pressures, ranged as it is"
      aside={
        <Box sx={{ my: -1, '@media print': { display: 'none' } }}>
          <Button size="small" onClick={() => saveCsv('boiler-drum.csv', csvOfDrum(rows))}>
            CSV
          </Button>
          <Button size="small" onClick={() => window.print()}>
            Print
          </Button>
        </Box>
      }
    >
      <Columns columns="1fr 1fr">
        <ShownTable label="Shown, by true level" rows={rows} show={(percent) => formatFixed(percent, 1)} />
        <IndicationCurves rows={rows} />
      </Columns>
    </Sheet>
  );
}

const COLD_STEPS = [
  'Fill the pot until water leaves its vent; purge both lines.',
  'Open the equaliser only while venting, then shut it.',
  'Zero at the lowest visible level, span at the highest and not above it.',
  'Check at half.',
];
const HOT_STEPS = [
  'At steady pressure read drum pressure, glass and transmitter at the same time.',
  'See what the densities explain before anything is entered.',
  'Record pressure and level with every bias that is entered.',
];

function Steps() {
  return (
    <Sheet title="Set up cold, then checked hot">
      <Columns columns="1fr 1fr">
        {[COLD_STEPS, HOT_STEPS].map((steps, index) => (
          <Box component="ol" key={index} sx={{ m: 0, pl: 3 }}>
            {steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </Box>
        ))}
      </Columns>
      <Alert severity="warning" variant="outlined" sx={{ mt: 1.5 }}>
        Steam and hot water scald. Level protections of a boiler stay in force or are bypassed by permit only.
        Boiler rules, the maker’s instructions and licensed people decide; these figures do not.
      </Alert>
    </Sheet>
  );
}
