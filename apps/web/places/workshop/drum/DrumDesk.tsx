'use client';
import { workLevelRange } from '@barys/core/level';
import { formatFixed, formatPlain } from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import { COLD_SET_UP, HOT_CHECK } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { LevelDrawing } from '@/places/workshop/level/LevelDrawing';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { RangeStave } from '@/ui/range/RangeStave';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import {
  computeDrum,
  configurationOfDrum,
  csvOfDrum,
  drumLevelForEnd,
  noteOfDrum,
  LEVELS,
  type DrumResult,
  type DrumRow,
} from './compute';
import { keepVesselAction } from '../hand-over/actions';
import { HandOver } from '../hand-over/HandOver';
import { DrumForm } from './DrumForm';
import { HotCheck } from './HotCheck';
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
        <Results fields={fields} change={change} result={got} />
      )}
    </Columns>
  );
}

function Results({
  fields,
  change,
  result,
}: {
  fields: DrumFields;
  change: (patch: Partial<DrumFields>) => void;
  result: DrumResult;
}) {
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
            <RangeStave
              range={result.signal}
              display={{ low: 0, high: 100 }}
              units={{ input: range, output: 'mA', display: '%' }}
              marker={null}
              onMove={(end, pressure) => change(drumLevelForEnd(fields, result, end, pressure))}
            />
            <Working of="the range" steps={() => workLevelRange(measurement).working} />
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Densities: IAPWS-IF97, saturated in the drum, at its own temperature in the leg.
            </Typography>
          </Sheet>
          <HandOver
            tag={fields.tag}
            onTag={(tag) => change({ tag })}
            configuration={configurationOfDrum(fields)}
            note={noteOfDrum(fields, result)}
            version={{
              what: 'vessel',
              why: fields.why,
              onWhy: (why) => change({ why }),
              keep: (tag) => keepVesselAction({ tag, tool: 'drum', fields }),
            }}
          />
        </Stack>
      </Columns>
      <HotCheck fields={fields} change={change} result={result} />
      <ShownSheet rows={result.rows} />
      <Steps />
    </Stack>
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
      aside={<TakeAlong file="boiler-drum.csv" csv={() => csvOfDrum(rows)} />}
    >
      <Columns columns="1fr 1fr">
        <ShownTable label="Shown, by true level" rows={rows} show={(percent) => formatFixed(percent, 1)} />
        <IndicationCurves rows={rows} />
      </Columns>
    </Sheet>
  );
}

function Steps() {
  return (
    <Sheet title="Set up cold, then checked hot">
      <Columns columns="1fr 1fr">
        {[COLD_SET_UP, HOT_CHECK].map((steps, index) => (
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
