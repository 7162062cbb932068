'use client';
import { ARRANGEMENTS, workLevelRange } from '@barys/core/level';
import { formatPlain, formatSignificant } from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { RangeStave } from '@/ui/range/RangeStave';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import {
  computeLevel,
  configurationOfLevel,
  csvOfLevel,
  forgotten,
  levelLimit,
  levelRows,
  noteOfLevel,
  waysOfOffset,
  ZERO_WORDS,
  type LevelResult,
  type LevelRow,
} from './compute';
import { orFault, unitsOfFields, type LevelFields } from './fields';
import { Unworkable } from '../deskFields';
import { isFault } from '../typed';
import { LevelDrawing } from './LevelDrawing';
import { LevelForm } from './LevelForm';
import { keepVesselAction } from '../hand-over/actions';
import { HandOver } from '../hand-over/HandOver';
import { levelForEnd } from './move';
import { VesselForm } from './VesselForm';
import { computeVolumes, roundOf } from './volume';

type Change = (patch: Partial<LevelFields>) => void;

/** A level by differential pressure: what is there at the left, what the transmitter is set to at the right. */
export function LevelDesk({ initial, liquids }: { initial: LevelFields; liquids: readonly Liquid[] }) {
  const [fields, change] = useAddress(initial);
  const got = orFault(() => computeLevel(fields));
  const fault = isFault(got) ? got : null;
  return (
    <Columns columns="minmax(300px, 0.75fr) 2.1fr">
      <Sheet title="What is there" sx={{ '@media print': { display: 'none' } }}>
        <LevelForm fields={fields} change={change} fault={fault} liquids={liquids} />
      </Sheet>
      {isFault(got) ? (
        <Unworkable title="Range" message={got.message} />
      ) : (
        <Results fields={fields} change={change} result={got} />
      )}
    </Columns>
  );
}

function Results({ fields, change, result }: { fields: LevelFields; change: Change; result: LevelResult }) {
  const units = unitsOfFields(fields);
  const [height, pressure] = [unitLabel(units.height), unitLabel(units.pressure)];
  const { measurement, levelM, range, signal, display, showPressure, showHeight } = result;
  const setLevel = (metres: number) =>
    change({ level: formatSignificant(convert(metres, 'm', units.height), 4).replace('\u2212', '-') });
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Columns columns="0.8fr 1fr">
        <Sheet title={ARRANGEMENTS[measurement.arrangement].name}>
          <LevelDrawing
            measurement={measurement}
            round={roundOf(fields)}
            levelM={levelM}
            onLevel={setLevel}
            tag="Transmitter"
            height={showHeight}
            dimension={(metres) => formatPlain(Number(convert(metres, 'm', units.height).toPrecision(6)))}
            unit={height}
          />
        </Sheet>
        <Stack sx={{ gap: 1.5 }}>
          <Sheet
            title={`Set 4 mA at ${showPressure(range.lrvPa)} and 20 mA at ${showPressure(range.urvPa)} ${pressure}`}
          >
            <Typography sx={{ mb: 1 }}>{ZERO_WORDS[result.zero]}</Typography>
            <RangeStave
              range={signal}
              display={display}
              units={{ input: pressure, output: 'mA', display: fields.displayUnit }}
              marker={result.markerPressure}
              onMove={(end, value) => change(levelForEnd(fields, result, end, value))}
            />
            <Working of="the range" steps={() => workLevelRange(measurement).working} />
          </Sheet>
          <ForgottenSheet fields={fields} result={result} />
        </Stack>
      </Columns>
      <Columns columns="1fr 1fr">
        <TableSheet fields={fields} change={change} result={result} />
        <Stack sx={{ gap: 1.5 }}>
          <OffsetSheet result={result} height={height} pressure={pressure} />
          <HandOver
            tag={fields.tag}
            onTag={(tag) => change({ tag })}
            configuration={configurationOfLevel(fields, result)}
            note={noteOfLevel(fields, result)}
            version={{
              what: 'vessel',
              why: fields.why,
              onWhy: (why) => change({ why }),
              keep: (tag) => keepVesselAction({ tag, tool: 'level', fields }),
            }}
          />
        </Stack>
      </Columns>
    </Stack>
  );
}

function ForgottenSheet({ fields, result }: { fields: LevelFields; result: LevelResult }) {
  const rows = orFault(() => forgotten(fields, result));
  const limit = orFault(() => ({ words: levelLimit(fields, result) }));
  return (
    <Sheet title="If something is not so">
      {isFault(rows) ? (
        <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          {rows.message}
        </Typography>
      ) : (
        <DataTable
          label="What the level would show"
          rows={rows}
          keyOf={({ what }) => what}
          columns={[
            ['If', ({ what }) => what],
            ['Then it shows', ({ effect }) => <Figure sx={{ whiteSpace: 'normal' }}>{effect}</Figure>],
          ]}
        />
      )}
      <Typography variant="body2" sx={{ mt: 1 }}>
        {isFault(limit)
          ? limit.message
          : `A limit of ${fields.limit} % of span is ${limit.words} ${unitLabel(unitsOfFields(fields).height)} of level.`}
      </Typography>
    </Sheet>
  );
}

function OffsetSheet({
  result,
  height,
  pressure,
}: {
  result: LevelResult;
  height: string;
  pressure: string;
}) {
  const [inRange, inDisplay] = waysOfOffset(result);
  const way = (where: string, { range, display }: typeof inRange) => ({
    where,
    range: `${range[0]} … ${range[1]} ${pressure}`,
    display: `${display[0]} … ${display[1]} ${height}`,
  });
  return (
    <Sheet title="Where the offset is taken">
      <DataTable
        label="The offset in the range, and in the display"
        rows={[
          way('in the range', inRange),
          ...(inDisplay === null ? [] : [way('in the display', inDisplay)]),
        ]}
        keyOf={({ where }) => where}
        columns={[
          ['Offset', ({ where }) => where],
          ['Range', ({ range }) => <Figure>{range}</Figure>],
          ['Display', ({ display }) => <Figure>{display}</Figure>],
        ]}
      />
      {inDisplay === null && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
          Here there is one way only: a range that begins at no differential would not see the level at 0 %,
          or begins there anyhow.
        </Typography>
      )}
    </Sheet>
  );
}

function TableSheet({
  fields,
  change,
  result,
}: {
  fields: LevelFields;
  change: Change;
  result: LevelResult;
}) {
  const units = unitsOfFields(fields);
  const [height, pressure] = [unitLabel(units.height), unitLabel(units.pressure)];
  const found = orFault(() => ({ volumes: computeVolumes(fields, result.measurement) }));
  const volumes = isFault(found) ? null : found.volumes;
  const rows = levelRows(result, volumes);
  const csv = () => csvOfLevel(rows, { height, pressure, volume: volumes?.unit ?? null });
  return (
    <Sheet title="Level, differential, output" aside={<TakeAlong file="level.csv" csv={csv} />}>
      <VesselForm fields={fields} change={change} fault={isFault(found) ? found : null} />
      {isFault(found) && (
        <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600, mt: 1 }}>
          {found.message}
        </Typography>
      )}
      <Box sx={{ mt: 1.5 }}>
        <DataTable
          label="Level, differential and output"
          rows={rows}
          keyOf={({ percent }) => percent}
          columns={[
            ['%', ({ percent }) => <Figure>{percent}</Figure>, 'right'],
            [`Level, ${height}`, ({ level }) => <Figure>{level}</Figure>, 'right'],
            [`Differential, ${pressure}`, (row) => <Figure>{row.pressure}</Figure>, 'right'],
            ['Output, mA', ({ output }) => <Figure>{output}</Figure>, 'right'],
            ...(volumes === null
              ? []
              : ([
                  [`Volume, ${volumes.unit}`, ({ volume }: LevelRow) => <Figure>{volume}</Figure>, 'right'],
                ] as const)),
          ]}
        />
      </Box>
      {volumes !== null && (
        <Typography
          variant="body2"
          sx={{ mt: 1 }}
        >{`Full to the top it holds ${volumes.full} ${volumes.unit}.`}</Typography>
      )}
      <Alert severity="info" variant="outlined" sx={{ mt: 1.5 }}>
        Heights are vertical, between the middles of the taps. Vent the lines and fill the legs before
        anything is trusted; follow the plant’s permit and isolation rules.
      </Alert>
    </Sheet>
  );
}
