'use client';
import { TAPS } from '@barys/core/flow';
import { formatFixed, formatSignificant } from '@barys/core/text';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { UnitField } from '@/ui/UnitField';
import { useAddress } from '@/ui/useAddress';
import { Working } from '@/ui/Working';
import { deskFields, pair, Unworkable } from '../deskFields';
import { HandOver } from '../hand-over/HandOver';
import { isFault, type Fault } from '../typed';
import { computeOrifice, csvOfOrifice, flowAddress, noteOfOrifice, type OrificeResult } from './compute';
import { findOf, labelsOf, orOrificeFault, tapsOf, unitsOfOrifice, type OrificeFields } from './fields';
import { PlateDrawing } from './PlateDrawing';

/** An orifice plate after ISO 5167-2: flow, differential or bore from the others, with limits of use and uncertainty. */
export function OrificeDesk({ initial }: { initial: OrificeFields }) {
  const [fields, change] = useAddress(initial);
  const got = orOrificeFault(() => computeOrifice(fields));
  return (
    <Columns columns="minmax(300px, 0.75fr) 2fr">
      <Sheet title="Plate and fluid" sx={{ '@media print': { display: 'none' } }}>
        <OrificeForm fields={fields} change={change} fault={isFault(got) ? got : null} />
      </Sheet>
      {isFault(got) ? (
        <Unworkable title="Orifice plate" message={got.message} />
      ) : (
        <Results fields={fields} change={change} result={got} />
      )}
    </Columns>
  );
}

function OrificeForm({
  fields,
  change,
  fault,
}: {
  fields: OrificeFields;
  change: (patch: Partial<OrificeFields>) => void;
  fault: Fault | null;
}) {
  const { number, choice } = deskFields(fields, change, fault);
  const units = unitsOfOrifice(fields);
  const find = findOf(fields);
  const labels = labelsOf(fields);
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Box sx={pair}>
        {choice('find', 'Work out', [
          ['flow', 'the flow'],
          ['differential', 'the differential'],
          ['bore', 'the bore'],
        ])}
        {choice(
          'taps',
          'Taps',
          TAPS.map((taps) => [taps, taps]),
        )}
        {number('pipe', 'Pipe, inside, mm')}
        {find !== 'bore' && number('bore', 'Bore, mm')}
        <UnitField
          label="Flow in"
          unit={units.flow}
          quantities={['volumeFlow', 'massFlow']}
          onUnit={(flowUnit) => change({ flowUnit })}
        />
        {find !== 'flow' && number('flow', `Flow, ${labels.flow}`)}
        <UnitField
          label="Differential in"
          unit={units.differential}
          quantities={['pressure']}
          onUnit={(differentialUnit) => change({ differentialUnit })}
        />
        {find !== 'differential' && number('differential', `Differential, ${labels.differential}`)}
      </Box>
      <Typography component="h3" variant="h3">
        Fluid, upstream
      </Typography>
      <Box sx={pair}>
        {choice('fluid', 'It is a', [
          ['liquid', 'liquid'],
          ['gas', 'gas or vapour'],
        ])}
        {choice('kind', 'Pressure is', [
          ['gauge', 'gauge'],
          ['absolute', 'absolute'],
        ])}
        <UnitField
          label="Pressure in"
          unit={units.pressure}
          quantities={['pressure']}
          onUnit={(pressureUnit) => change({ pressureUnit })}
        />
        {number('pressure', `Pressure, ${labels.pressure}`)}
        {fields.kind !== 'absolute' && number('barometer', 'Barometer, hPa')}
        {number('density', 'Density, kg/m³')}
        {number('viscosity', 'Viscosity, mPa s')}
        {fields.fluid === 'gas' && number('exponent', 'Isentropic exponent')}
      </Box>
      <Typography component="h3" variant="h3">
        Uncertainty of each, % (k = 2)
      </Typography>
      <Box sx={pair}>
        {number('uPipe', 'Pipe')}
        {number('uBore', 'Bore')}
        {number('uDifferential', 'Differential')}
        {number('uDensity', 'Density')}
      </Box>
    </Stack>
  );
}

function headline(fields: OrificeFields, { shown }: OrificeResult): string {
  const labels = labelsOf(fields);
  switch (findOf(fields)) {
    case 'flow':
      return `${shown.flow} ${labels.flow} at ${shown.differential} ${labels.differential}`;
    case 'differential':
      return `${shown.differential} ${labels.differential} for ${shown.flow} ${labels.flow}`;
    case 'bore':
      return `A bore of ${shown.boreMm} mm`;
  }
}

function Results({
  fields,
  change,
  result,
}: {
  fields: OrificeFields;
  change: (patch: Partial<OrificeFields>) => void;
  result: OrificeResult;
}) {
  const { flow, plate, shown, broken } = result;
  const labels = labelsOf(fields);
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Columns columns="1fr 1fr">
        <Sheet title={headline(fields, result)}>
          <PlateDrawing
            plate={{ ...plate, taps: tapsOf(fields) }}
            boreMm={shown.boreMm}
            pipeMm={formatSignificant(plate.pipeM * 1000, 5)}
          />
          <Working of="the flow" steps={result.working} />
        </Sheet>
        <Sheet title="After ISO 5167-2">
          {broken.length === 0 ? (
            <Typography sx={{ mb: 1 }}>Inside all limits of use.</Typography>
          ) : (
            broken.map(({ name, words }) => (
              <Alert key={name} severity="warning" variant="outlined" sx={{ mb: 1 }}>
                {words} Outside the limits of use no uncertainty is stated.
              </Alert>
            ))
          )}
          <Facts
            facts={[
              ['Bore over pipe, β', <Figure key="b">{flow.beta.toFixed(5)}</Figure>],
              [
                'Discharge coefficient',
                <Figure key="c">{`${flow.coefficient.toFixed(5)} ± ${formatFixed(result.coefficientPercent, 2)} %`}</Figure>,
              ],
              ['Expansibility', <Figure key="e">{flow.expansibility.toFixed(5)}</Figure>],
              ['Reynolds number', <Figure key="r">{formatSignificant(flow.reynolds, 4)}</Figure>],
              ['Mass flow', <Figure key="m">{`${formatSignificant(flow.massFlow, 5)} kg/s`}</Figure>],
              [
                'Volume flow',
                <Figure key="v">{`${formatSignificant(flow.volumeFlow * 3600, 5)} m³/h upstream`}</Figure>,
              ],
              ['Stays lost', <Figure key="l">{`${shown.loss} ${labels.differential}`}</Figure>],
              [
                'Uncertainty of the flow',
                broken.length === 0 ? (
                  <Figure key="u">{`± ${formatFixed(result.uncertaintyPercent, 2)} % (k = 2)`}</Figure>
                ) : (
                  'not stated'
                ),
              ],
            ]}
          />
        </Sheet>
      </Columns>
      <OverTheRange fields={fields} result={result} />
      <HandOver
        tag={fields.tag}
        onTag={(tag) => change({ tag })}
        configuration={null}
        note={noteOfOrifice(fields, result)}
      />
    </Stack>
  );
}

function OverTheRange({ fields, result }: { fields: OrificeFields; result: OrificeResult }) {
  const labels = labelsOf(fields);
  const figure = (text: string) => <Figure>{text}</Figure>;
  return (
    <Sheet
      title="Over the range"
      aside={
        <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
          <LinkButton href={`/workshop/flow?${flowAddress(fields, result)}`}>
            As the range of a flow
          </LinkButton>
          <TakeAlong file="orifice.csv" csv={() => csvOfOrifice(fields, result.rows)} />
        </Stack>
      }
    >
      <DataTable
        label="Orifice plate over the range"
        rows={result.rows}
        keyOf={({ percent }) => percent}
        columns={[
          ['Flow, %', ({ percent }) => figure(percent), 'right'],
          [`Flow, ${labels.flow}`, ({ flow }) => figure(flow), 'right'],
          [`Differential, ${labels.differential}`, ({ differential }) => figure(differential), 'right'],
          ['C', ({ coefficient }) => figure(coefficient), 'right'],
          ['Expansibility', ({ expansibility }) => figure(expansibility), 'right'],
          ['A plain root shows', ({ byRoot }) => figure(byRoot), 'right'],
        ]}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        A transmitter takes the plain root of the differential: coefficient and expansibility change a little
        with the flow, and that little stays as an error. Bore and pipe are as they are at the temperature of
        the fluid.
      </Typography>
    </Sheet>
  );
}
