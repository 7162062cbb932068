'use client';
import { NAMUR_LIMITS } from '@barys/core/signal';
import { formatFixed, formatPlain, formatSigned } from '@barys/core/text';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { UnitField } from '@/ui/UnitField';
import { useAddress } from '@/ui/useAddress';
import { VerdictMark } from '@/ui/VerdictMark';
import { Working } from '@/ui/Working';
import { deskFields, pair, Part, Unworkable } from '../deskFields';
import { HandOver } from '../hand-over/HandOver';
import { isFault, type Fault } from '../typed';
import {
  computeMeasured,
  computeReceiver,
  computeSupply,
  csvOfSupply,
  lengthWords,
  noteOfSupply,
  type SupplyResult,
} from './compute';
import { lengthUnitOf, orSupplyFault, type SupplyFields } from './fields';
import { VoltBars } from './VoltBars';

/** All that follows from the fields; each part by itself. */
function workedOut(fields: SupplyFields) {
  const got = orSupplyFault(() => computeSupply(fields));
  if (isFault(got)) return { got, parts: null };
  return {
    got,
    parts: {
      measured: fields.measured.trim() === '' ? null : orSupplyFault(() => computeMeasured(fields, got)),
      receiver: orSupplyFault(() => computeReceiver(fields)),
    },
  };
}
type Parts = NonNullable<ReturnType<typeof workedOut>['parts']>;

/** The supply of a two-wire loop: what reaches the transmitter, how far a cable goes, and what a bad connection takes. */
export function SupplyDesk({ initial }: { initial: SupplyFields }) {
  const [fields, change] = useAddress(initial);
  const { got, parts } = workedOut(fields);
  const all: readonly object[] = [
    got,
    ...(parts === null ? [] : Object.values(parts).filter((one) => one !== null)),
  ];
  return (
    <Columns columns="minmax(300px, 0.75fr) 2fr">
      <Sheet title="Loop" sx={{ '@media print': { display: 'none' } }}>
        <SupplyForm fields={fields} change={change} fault={all.find(isFault) ?? null} />
      </Sheet>
      {isFault(got) || parts === null ? (
        <Unworkable title="Loop supply" message={isFault(got) ? got.message : ''} />
      ) : (
        <Stack sx={{ gap: 1.5 }}>
          <Budget fields={fields} result={got} />
          <Columns columns="1fr 1fr">
            <Measured fields={fields} measured={parts.measured} />
            <Receiver receiver={parts.receiver} />
          </Columns>
          <Regions result={got} />
          <HandOver
            tag={fields.tag}
            onTag={(tag) => change({ tag })}
            configuration={null}
            note={noteOfSupply(fields, got)}
          />
        </Stack>
      )}
    </Columns>
  );
}

function SupplyForm({
  fields,
  change,
  fault,
}: {
  fields: SupplyFields;
  change: (patch: Partial<SupplyFields>) => void;
  fault: Fault | null;
}) {
  const { number, choice } = deskFields(fields, change, fault);
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Box sx={pair}>
        {number('supply', 'Supply, V')}
        {number('liftOff', 'Lift-off, V')}
        {number('failure', 'Failure current, mA')}
      </Box>
      <Part>Cable</Part>
      <Box sx={pair}>
        {choice('by', 'Conductor by', [
          ['area', 'area'],
          ['gauge', 'gauge, AWG'],
        ])}
        {fields.by === 'gauge' ? number('gauge', 'AWG') : number('area', 'Area, mm²')}
        {number('length', 'Length, one way')}
        <UnitField
          label="Length in"
          unit={lengthUnitOf(fields)}
          quantities={['length']}
          onUnit={(lengthUnit) => change({ lengthUnit })}
        />
        {number('temperature', 'As warm as, °C')}
      </Box>
      <Part>In the loop</Part>
      <Box sx={pair}>
        {number('resistor', 'Resistor, Ω')}
        {number('other', 'Other, Ω')}
        {number('barrier', 'Barrier, Ω')}
        {number('drop', 'Barrier, V')}
        {number('tolerance', 'Resistor is ±, %')}
        {number('input', 'Input takes, Ω')}
      </Box>
      <Part>Measured at the terminals</Part>
      <Box sx={pair}>
        {number('measured', 'Voltage, V')}
        {number('at', 'At, mA')}
      </Box>
    </Stack>
  );
}

function Budget({ fields, result }: { fields: SupplyFields; result: SupplyResult }) {
  const { budget, rows, given, failure } = result;
  const volt = (value: number) => <Figure key={value}>{`${formatFixed(value, 2)} V`}</Figure>;
  const ohm = (value: number) => <Figure key={value}>{`${formatFixed(value, 1)} Ω`}</Figure>;
  return (
    <Sheet
      title={`${formatFixed(budget.terminalV.atFailure, 2)} V at the terminals at ${formatPlain(failure)} mA`}
      aside={<TakeAlong file="loop-supply.csv" csv={() => csvOfSupply(rows)} />}
    >
      <Typography
        sx={{ fontSize: 19, mb: 1, display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}
      >
        <span aria-hidden>
          <VerdictMark verdict={budget.isEnough ? 'within' : 'outside'} size={19} isMarkOnly />
        </span>
        {budget.isEnough
          ? `Enough: ${formatFixed(budget.marginV, 2)} V and ${formatFixed(budget.marginOhm, 0)} Ω to spare.`
          : `Not enough by ${formatFixed(-budget.marginV, 2)} V: from ${budget.mostMilliamp === null ? '–' : formatFixed(budget.mostMilliamp, 1)} mA on it reads what the supply allows.`}
      </Typography>
      <VoltBars rows={rows} supplyV={given.supplyV} liftOffV={given.liftOffV} />
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        From the left: transmitter, cable, resistor, barrier, other; together the supply of{' '}
        {formatPlain(given.supplyV)} V.
      </Typography>
      <Columns columns="1fr 1fr">
        <Facts
          facts={[
            ['Cable, there and back', ohm(budget.wireOhm)],
            ['All in the loop', ohm(budget.totalOhm)],
            ['At most, at 20 mA', ohm(budget.mostOhm.at20)],
            [`At most, at ${formatPlain(failure)} mA`, ohm(budget.mostOhm.atFailure)],
          ]}
        />
        <Facts
          facts={[
            ['At 4 mA', volt(budget.terminalV.at4)],
            ['At 20 mA', volt(budget.terminalV.at20)],
            ['Longest cable', budget.longestM === 0 ? 'none' : lengthWords(fields, budget.longestM)],
            ['Least supply', volt(budget.leastSupplyV)],
          ]}
        />
      </Columns>
      {!budget.canCommunicate && (
        <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
          Digital communication needs at least 230 to 250 Ω besides the cable (common practice): put a
          resistor of 250 Ω in.
        </Alert>
      )}
      <Working of="the terminal voltage" steps={result.working} />
    </Sheet>
  );
}

function Measured({ fields, measured }: { fields: SupplyFields; measured: Parts['measured'] }) {
  if (measured !== null && isFault(measured))
    return <Unworkable title="Measured at the terminals" message={measured.message} />;
  return (
    <Sheet title="Measured at the terminals">
      {measured === null ? (
        <Typography sx={{ color: 'text.secondary' }}>
          Type what stands there and the current: it says what more lies in the loop than was entered.
        </Typography>
      ) : (
        <Typography>
          <Figure>{formatFixed(measured.expected, 2)}</Figure> V should stand there at {fields.at} mA. The
          difference is{' '}
          <strong>
            <Figure>{formatSigned(measured.ohm, 1)}</Figure> Ω
          </strong>
          {measured.ohm > 0
            ? ': a bad connection, a longer cable or something that nobody entered.'
            : ': less lies in the loop than was entered.'}
        </Typography>
      )}
    </Sheet>
  );
}

function Receiver({ receiver }: { receiver: Parts['receiver'] }) {
  if (isFault(receiver))
    return <Unworkable title="A computer input of 1 to 5 V" message={receiver.message} />;
  const figure = (text: string) => <Figure>{text}</Figure>;
  return (
    <Sheet title="A computer input of 1 to 5 V">
      <DataTable
        label="Volts across the resistor"
        rows={receiver}
        keyOf={({ milliamp }) => milliamp}
        columns={[
          ['mA', ({ milliamp }) => figure(String(milliamp)), 'right'],
          ['V', ({ nominal }) => figure(formatFixed(nominal, 4)), 'right'],
          [
            'Between',
            ({ least, most }) => figure(`${formatFixed(least, 4)} … ${formatFixed(most, 4)}`),
            'right',
          ],
          ['At worst, % of span', ({ percent }) => figure(formatSigned(percent, 3)), 'right'],
        ]}
      />
    </Sheet>
  );
}

const REGION = {
  'failure-low': 'failure, low',
  'undefined-low': 'not defined',
  'under-range': 'measured, under the range',
  normal: 'measured',
  'over-range': 'measured, over the range',
  'undefined-high': 'not defined',
  'failure-high': 'failure, high',
} as const;

function Regions({ result }: { result: SupplyResult }) {
  const figure = (volt: number) => <Figure>{formatFixed(volt, 2)}</Figure>;
  const { failureLow, saturationLow, saturationHigh, failureHigh } = NAMUR_LIMITS;
  return (
    <Sheet title="By current">
      <DataTable
        label="Volts by current"
        rows={result.rows}
        keyOf={({ milliamp }) => milliamp}
        columns={[
          ['Current, mA', ({ milliamp }) => <Figure>{formatPlain(milliamp)}</Figure>, 'right'],
          ['It says', ({ region }) => REGION[region]],
          ['Cable, V', ({ cable }) => figure(cable), 'right'],
          ['Resistor, V', ({ resistor }) => figure(resistor), 'right'],
          ['Barrier, V', ({ barrier }) => figure(barrier), 'right'],
          ['Other, V', ({ other }) => figure(other), 'right'],
          ['At the terminals, V', ({ terminal }) => figure(terminal), 'right'],
        ]}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        NAMUR NE 43 (from memory): {saturationLow} to {saturationHigh} mA is measured, {failureLow} mA and
        less or {failureHigh} mA and more is a failure; what lies between is not defined.
      </Typography>
    </Sheet>
  );
}
