'use client';
import { formatFixed, formatPlain, formatSigned, formatSignificant } from '@barys/core/text';
import { unitLabel } from '@barys/core/units';
import type { SignalRange } from '@barys/core/signal';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { RangeStave } from '@/ui/range/RangeStave';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import { Unworkable } from '../deskFields';
import { HandOver } from '../hand-over/HandOver';
import { isFault } from '../typed';
import {
  computeFactor,
  computeFlow,
  computeGas,
  computeNoise,
  computeOne,
  computeZero,
  configurationOfFlow,
  csvOfFlow,
  noteOfFlow,
  type FlowResult,
} from './compute';
import { FlowForm } from './FlowForm';
import { NoiseSheet } from './NoiseSheet';
import { orFlowFault, unitOf, type FlowFields } from './fields';
import { StartCurves } from './StartCurves';

interface PartProps {
  fields: FlowFields;
  result: FlowResult;
}

/** All that follows from the fields; each part by itself, so that one wrong field takes away what it is about. */
function workedOut(fields: FlowFields) {
  const got = orFlowFault(() => computeFlow(fields));
  if (isFault(got)) return { got, parts: null };
  const parts = {
    zero: orFlowFault(() => computeZero(fields, got)),
    gas: orFlowFault(() => computeGas(fields, got)),
    total: orFlowFault(() => ({ factor: computeFactor(fields, got) })),
    noise: orFlowFault(() => computeNoise(fields, got)),
  };
  return { got, parts };
}
type Parts = NonNullable<ReturnType<typeof workedOut>['parts']>;

/** Flow by differential pressure: the root and its low end, zero and density, totals, noise and damping. */
export function FlowDesk({ initial }: { initial: FlowFields }) {
  const [fields, change] = useAddress(initial);
  const { got, parts } = useMemo(() => workedOut(fields), [fields]);
  const all: readonly object[] = [got, ...(parts === null ? [] : Object.values(parts))];
  const fault = all.find(isFault) ?? null;
  return (
    <Columns columns="minmax(300px, 0.72fr) 2.1fr">
      <Sheet title="Primary element" sx={{ '@media print': { display: 'none' } }}>
        <FlowForm fields={fields} change={change} fault={fault} />
      </Sheet>
      {isFault(got) || parts === null ? (
        <Unworkable title="Flow" message={isFault(got) ? got.message : ''} />
      ) : (
        <Stack sx={{ gap: 1.5 }}>
          <RangeSheet fields={fields} result={got} change={change} />
          <Columns columns="1.35fr 1fr">
            <LowEnd fields={fields} result={got} />
            <One fields={fields} result={got} change={change} />
          </Columns>
          <Table fields={fields} result={got} />
          <Columns columns="1.2fr 1fr">
            <Zero fields={fields} zero={parts.zero} />
            <Stack sx={{ gap: 1.5 }}>
              <Gas fields={fields} gas={parts.gas} />
              <Totaliser fields={fields} total={parts.total} />
            </Stack>
          </Columns>
          <Noise fields={fields} result={got} rows={parts.noise} />
          <HandOver
            tag={fields.tag}
            onTag={(tag) => change({ tag })}
            configuration={configurationOfFlow(fields, got)}
            note={noteOfFlow(fields, got)}
          />
        </Stack>
      )}
    </Columns>
  );
}

const fourDigits = (value: number): string => String(Number(value.toPrecision(4)));

function RangeSheet({
  fields,
  result,
  change,
}: PartProps & { change: (patch: Partial<FlowFields>) => void }) {
  const { scale, range, straight } = result;
  const unit = unitLabel(unitOf(fields));
  const marker = readNumber(fields.applied).value;
  // Its end is moved at the one; the other follows.
  const move = (end: 'low' | 'high', value: number) =>
    // The range of a flow begins at no differential.
    end === 'high' && value > 0 && change({ differentialMax: fourDigits(value) });
  const stave = (name: string, of: SignalRange, onMove?: typeof move) => (
    <Box>
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        {name}
      </Typography>
      <RangeStave
        range={of}
        display={{ low: 0, high: scale.flowMax }}
        units={{ input: unit, output: 'mA', display: fields.flowUnit }}
        marker={marker}
        onMove={onMove}
      />
    </Box>
  );
  return (
    <Sheet
      title={`0 … ${formatPlain(scale.differentialMax)} ${unit} is 0 … ${formatPlain(scale.flowMax)} ${fields.flowUnit}`}
    >
      <Columns columns="1fr 1fr">
        {stave('Cut to zero', range, move)}
        {stave('Linear start', straight)}
      </Columns>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        The root is taken once over the loop: in the transmitter as here, or in a receiver behind a linear
        transmitter.
      </Typography>
    </Sheet>
  );
}

function LowEnd({ fields, result }: PartProps) {
  const { rangeability, knees, show, cut, linear, scale } = result;
  const unit = unitLabel(unitOf(fields));
  return (
    <Sheet title="The low end of the root">
      <StartCurves
        cut={cut}
        linear={linear}
        knees={[readNumber(fields.cutOff).value ?? 0, readNumber(fields.linearTo).value ?? 0]}
        unit={unit}
        show={show.differential}
        differentialMax={scale.differentialMax}
      />
      <Facts
        facts={[
          [
            'Rangeability',
            rangeability === null ? (
              'nothing is cut'
            ) : (
              <Figure key="r">{`${formatSignificant(rangeability, 3)} : 1`}</Figure>
            ),
          ],
          ['Cut to zero below', <Figure key="c">{`${knees[0]} ${unit}`}</Figure>],
          ['Linear start up to', <Figure key="l">{`${knees[1]} ${unit}`}</Figure>],
        ]}
      />
    </Sheet>
  );
}

function One({ fields, result, change }: PartProps & { change: (patch: Partial<FlowFields>) => void }) {
  const one = fields.applied.trim() === '' ? null : orFlowFault(() => computeOne(fields, result));
  return (
    <Sheet title="One differential" sx={{ '@media print': { display: 'none' } }}>
      <NumberField
        label={`Differential, ${unitLabel(unitOf(fields))}`}
        text={fields.applied}
        onText={(applied) => change({ applied })}
        error={one !== null && isFault(one) ? one.message : null}
        fullWidth
      />
      {one !== null && !isFault(one) && (
        <>
          <Typography sx={{ mt: 1, fontWeight: 700 }}>
            <Figure>{one.cut}</Figure> {fields.flowUnit} cut to zero, <Figure>{one.linear}</Figure> with a
            linear start
          </Typography>
          <Working of="this flow" steps={one.working} />
        </>
      )}
    </Sheet>
  );
}

function Table({ fields, result }: PartProps) {
  const { rows } = result;
  const unit = unitLabel(unitOf(fields));
  const figure = (text: string) => <Figure>{text}</Figure>;
  return (
    <Sheet
      title="Cut to zero beside a linear start"
      aside={<TakeAlong file="flow.csv" csv={() => csvOfFlow(fields, rows)} />}
    >
      <DataTable
        label="Flow and output, by flow"
        rows={rows}
        keyOf={({ percent }) => percent}
        columns={[
          ['Flow, %', ({ percent }) => figure(percent), 'right'],
          [`Differential, ${unit}`, ({ differential }) => figure(differential), 'right'],
          ['Cut, mA', ({ cut }) => figure(cut[0]), 'right'],
          [`Cut, ${fields.flowUnit}`, ({ cut }) => figure(cut[1]), 'right'],
          ['Linear start, mA', ({ linear }) => figure(linear[0]), 'right'],
          [`Linear start, ${fields.flowUnit}`, ({ linear }) => figure(linear[1]), 'right'],
        ]}
      />
    </Sheet>
  );
}

function Zero({ fields, zero }: { fields: FlowFields; zero: Parts['zero'] }) {
  if (isFault(zero)) return <Unworkable title="What a wrong zero does" message={zero.message} />;
  const unit = unitLabel(unitOf(fields));
  const figure = (text: string) => <Figure>{text}</Figure>;
  return (
    <Sheet title="What a wrong zero does">
      <Typography sx={{ mb: 1 }}>
        <Figure>{formatSigned(zero.off, 3)}</Figure> {unit} too much,{' '}
        <Figure>{formatSigned(zero.offPercent, 3)}</Figure> % of the differential
        {zero.position === 0 ? '' : `, ${formatSigned(zero.position, 3)} of it by the tilt`}: while nothing
        flows it shows <Figure>{zero.atRest}</Figure> {fields.flowUnit}, behind the cut-off{' '}
        <Figure>{zero.atRestCut}</Figure>.
      </Typography>
      <DataTable
        label="Flow shown with the wrong zero"
        rows={zero.rows}
        keyOf={({ percent }) => percent}
        columns={[
          ['Flow, %', ({ percent }) => figure(percent), 'right'],
          [`True, ${fields.flowUnit}`, ({ flow }) => figure(flow), 'right'],
          [`Shown, ${fields.flowUnit}`, ({ shown }) => figure(shown), 'right'],
          [`Error, ${fields.flowUnit}`, ({ error }) => figure(error), 'right'],
          ['Error, % of flow', ({ percentOfFlow }) => figure(percentOfFlow), 'right'],
        ]}
      />
      <Working of="the flow shown at rest" steps={zero.working} />
    </Sheet>
  );
}

function Gas({ fields, gas }: { fields: FlowFields; gas: Parts['gas'] }) {
  if (isFault(gas)) return <Unworkable title="A gas that is not as designed" message={gas.message} />;
  return (
    <Sheet title="A gas that is not as designed">
      <Typography>
        Times <Figure>{formatFixed(gas.factor, 4)}</Figure>: {fields.indicated} {fields.flowUnit} shown is
        really <Figure>{gas.corrected}</Figure>. Uncorrected it reads{' '}
        <Figure>{formatSigned(gas.uncompensatedPercent, 2)}</Figure> %.
      </Typography>
      <Working of="the correction" steps={gas.working} />
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        For mass flow and for flow at standard conditions; ideal gas.
      </Typography>
    </Sheet>
  );
}

function Totaliser({ fields, total }: { fields: FlowFields; total: Parts['total'] }) {
  if (isFault(total)) return <Unworkable title="Totaliser" message={total.message} />;
  return (
    <Sheet title="Totaliser">
      <Typography>
        One count is <Figure>{formatSignificant(total.factor, 6)}</Figure> of what {fields.flowUnit} counts:{' '}
        {fields.counts} counts at full scale in the time that the flow is per.
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        A total is taken of flows and not of differentials: the root of a mean is more than the mean of the
        roots.
      </Typography>
    </Sheet>
  );
}

function Noise({ fields, result, rows }: PartProps & { rows: Parts['noise'] }) {
  if (isFault(rows)) return <Unworkable title="Noise, damping and how late it is" message={rows.message} />;
  return <NoiseSheet fields={fields} rows={rows} flowMax={result.scale.flowMax} />;
}
