'use client';
import { spanOverlap } from '@barys/core/ranging';
import { formatPlain } from '@barys/core/text';
import { convertPressure, unitLabel, type PressureUnit } from '@barys/core/units';
import type { Body } from '@barys/store/registers';
import { FOLLOWS, TORQUE_UNITS, torqueWords, type TorqueUnit } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { UnitField } from '@/ui/UnitField';
import { RangeStave } from '@/ui/range/RangeStave';
import { Working } from '@/ui/Working';
import { useAddress } from '@/ui/useAddress';
import {
  accuracyWords,
  breachWords,
  computeChange,
  csvOfChange,
  turndownWords,
  workingOf,
  type Ends,
  type RangeChange,
} from './compute';
import { HandOver } from '../hand-over/HandOver';
import { FitSheet } from './FitSheet';
import { deskFields, Unworkable } from '../deskFields';
import { isFault, type Fault } from '../typed';
import type { RangeChangeFields } from './fields';

type Change = (patch: Partial<RangeChangeFields>) => void;

/** Whether a body can be ranged so, by which limit not, what else would do, and what must follow. */
export function RangeChangeDesk({
  initial,
  bodies,
}: {
  initial: RangeChangeFields;
  bodies: readonly Body[];
}) {
  const [fields, change] = useAddress(initial);
  const got = computeChange(fields, bodies);
  return (
    <Columns columns="minmax(300px, 0.75fr) 2.1fr">
      <Sheet title="What is changed" sx={{ '@media print': { display: 'none' } }}>
        <RangeChangeForm fields={fields} change={change} bodies={bodies} fault={isFault(got) ? got : null} />
      </Sheet>
      {isFault(got) ? (
        <Unworkable title="Range" message={got.message} />
      ) : (
        <Results fields={fields} change={change} got={got} />
      )}
    </Columns>
  );
}

function RangeChangeForm({
  fields,
  change,
  bodies,
  fault,
}: {
  fields: RangeChangeFields;
  change: Change;
  bodies: readonly Body[];
  fault: Fault | null;
}) {
  const { number, choice } = deskFields(fields, change, fault);
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Box component="form" method="get" sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1 }}>
        <TextField
          name="tag"
          label="Instrument, by its tag"
          value={fields.tag}
          onChange={({ target }) => change({ tag: target.value })}
          autoComplete="off"
        />
        <Button type="submit" variant="outlined">
          Take its range
        </Button>
      </Box>
      {choice(
        'body',
        'Body',
        bodies.map(({ id, model }) => [String(id), model]),
      )}
      <UnitField
        label="Ranges in"
        unit={fields.unit as PressureUnit}
        quantities={['pressure']}
        onUnit={(unit) => change({ unit })}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        {number('oldLow', 'Now, LRV')}
        {number('oldHigh', 'Now, URV')}
        {number('newLow', 'New LRV')}
        {number('newHigh', 'New URV')}
      </Box>
    </Stack>
  );
}

const HEADS = {
  field: 'Fits: it is set at the instrument',
  shop: 'Fits, with the linkage set anew: work for the shop',
  nowhere: 'Does not fit this body',
} as const;

function Results({ fields, change, got }: { fields: RangeChangeFields; change: Change; got: RangeChange }) {
  const { body, judged, unit } = got;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title={body === null ? 'Choose a body' : `${HEADS[got.where]}: ${body.model}`}>
        {body !== null && judged !== null && (
          <Stack sx={{ gap: 1 }}>
            {judged.after.breaches.map((breach) => (
              <Alert key={breach.limit} severity="warning" variant="outlined">
                {breachWords(breach, body, unit)}
              </Alert>
            ))}
            {judged.after.breaches.length === 0 && got.where === 'nowhere' && (
              <Alert severity="warning" variant="outlined">
                No class of the linkage has this span.
              </Alert>
            )}
          </Stack>
        )}
        <Columns columns="1fr 1fr">
          <OneRange name="Now" ends={got.before} unit={unit} body={body} />
          <OneRange
            name="New"
            ends={got.after}
            unit={unit}
            body={body}
            onMove={(end, value) => change({ [end === 'low' ? 'newLow' : 'newHigh']: String(value) })}
          />
        </Columns>
      </Sheet>
      <Columns columns="1fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <FiguresSheet got={got} />
          {fields.tag.trim() !== '' && (
            <FitSheet
              key={`${fields.tag} ${got.after.join(' ')} ${unit}`}
              tag={fields.tag.trim().toUpperCase()}
              lrv={got.after[0]}
              urv={got.after[1]}
              unit={unit}
            />
          )}
          <FollowSheet />
          <HandOverSheet fields={fields} change={change} got={got} />
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
          <CandidateSheet got={got} change={change} />
          {body !== null && body.swapChecklist.length > 0 && (
            <SwapSheet body={body} torque={fields.torque} onTorque={(torque) => change({ torque })} />
          )}
        </Stack>
      </Columns>
    </Stack>
  );
}

function OneRange({
  name,
  ends: [lrv, urv],
  unit,
  body,
  onMove,
}: {
  name: string;
  ends: Ends;
  unit: PressureUnit;
  body: Body | null;
  onMove?: (end: 'low' | 'high', value: number) => void;
}) {
  const limits =
    body &&
    ([
      Math.min(lrv, urv, convertPressure(body.lowerRangeLimit, body.unit, unit)),
      Math.max(lrv, urv, convertPressure(body.upperRangeLimit, body.unit, unit)),
    ] as const);
  return (
    <div>
      <Typography component="h3" variant="h3" sx={{ mb: 0.5 }}>
        {`${name}: ${formatPlain(lrv)} … ${formatPlain(urv)} ${unitLabel(unit)}`}
      </Typography>
      <RangeStave
        range={{ lrv, urv, outputLow: 4, outputHigh: 20, transferFunction: { kind: 'linear' } }}
        display={{ low: 0, high: 100 }}
        units={{ input: unitLabel(unit), output: 'mA', display: '%' }}
        marker={null}
        limits={limits ?? undefined}
        onMove={onMove}
      />
    </div>
  );
}

function FiguresSheet({ got }: { got: RangeChange }) {
  const { judged, accuracy } = got;
  if (judged === null) return null;
  const { before, after } = judged;
  const classes = after.classes.map(({ name }) => name).join(' or ');
  return (
    <Sheet title="Now and then" aside={<TakeAlong file="range-change.csv" csv={() => csvOfChange(got)} />}>
      <Facts
        facts={[
          ['Turndown', `${turndownWords(before.turndown)}, then ${turndownWords(after.turndown)}`],
          [
            'Accuracy of the body',
            `${accuracyWords(accuracy.before)}, then ${accuracyWords(accuracy.after)}`,
          ],
          [
            '0 % moved by',
            `${formatPlain(Number((after.zeroShiftOfSpan * 100).toPrecision(4)))} % of the new span`,
          ],
          ...(classes === '' ? [] : [['Linkage set for', classes] as const]),
          ...overlapFacts(got),
        ]}
      />
      <Working of="the new range" steps={() => workingOf(got)} />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        Another range was never calibrated: it means a calibration, a new label, and telling everybody
        downstream.
      </Typography>
    </Sheet>
  );
}

/** Spans that two classes of the linkage, or two capsules, can both be set to. */
function overlapFacts({ body }: RangeChange): (readonly [string, string])[] {
  const classes = body?.spanClasses ?? [];
  return classes.slice(1).flatMap((one, index) => {
    const before = classes[index];
    const both = before === undefined ? null : spanOverlap(before, one);
    if (body === null || before === undefined || both === null) return [];
    const words = `${formatPlain(both[0])} … ${formatPlain(both[1])} ${unitLabel(body.unit)}`;
    return [['Spans of both', `${before.name} and ${one.name}: ${words}`] as const];
  });
}

function CandidateSheet({ got, change }: { got: RangeChange; change: Change }) {
  return (
    <Sheet title="Bodies that would do" aside="the best first">
      <DataTable
        label="Bodies that would do"
        rows={got.candidates}
        keyOf={({ body }) => body.id}
        none="No body of the catalogue can be ranged so."
        columns={[
          [
            'Body',
            ({ body }) =>
              body.id === got.body?.id ? (
                <strong>{body.model}, this one</strong>
              ) : (
                <Button onClick={() => change({ body: String(body.id) })} sx={{ textAlign: 'left', px: 0 }}>
                  {body.model}
                </Button>
              ),
          ],
          ['Turndown', ({ judgement }) => <Figure>{turndownWords(judgement.turndown)}</Figure>, 'right'],
          ['Accuracy', ({ accuracyPercentOfSpan }) => accuracyWords(accuracyPercentOfSpan)],
        ]}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        To exchange a body is work for the shop.
      </Typography>
    </Sheet>
  );
}

const unitOfTorque = (text: string): TorqueUnit => (text in TORQUE_UNITS ? (text as TorqueUnit) : 'N·m');

function SwapSheet({
  body,
  torque,
  onTorque,
}: {
  body: Body;
  torque: string;
  onTorque: (unit: string) => void;
}) {
  const unit = unitOfTorque(torque);
  return (
    <Sheet title={`Exchanging the ${body.model}`}>
      <TextField
        select
        label="Torques in"
        value={unit}
        onChange={({ target }) => onTorque(target.value)}
        sx={{ minWidth: 120, mb: 1 }}
      >
        {Object.keys(TORQUE_UNITS).map((unit) => (
          <MenuItem key={unit} value={unit} sx={{ minHeight: 44 }}>
            {unit}
          </MenuItem>
        ))}
      </TextField>
      <Box component="ol" sx={{ m: 0, pl: 3 }}>
        {body.swapChecklist.map(({ step, torqueNm }, index) => (
          <li key={index}>
            {step}
            {torqueNm !== null && (
              <>
                {': '}
                <Figure>{torqueWords(torqueNm, unit)}</Figure>
              </>
            )}
          </li>
        ))}
      </Box>
    </Sheet>
  );
}

function FollowSheet() {
  return (
    <Sheet title="What must follow">
      <Box component="ul" sx={{ m: 0, pl: 3 }}>
        {FOLLOWS.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Sheet>
  );
}

/** What goes to an instrument; a body that is exchanged may be one in which the range fits. */
function HandOverSheet({
  fields,
  change,
  got,
}: {
  fields: RangeChangeFields;
  change: Change;
  got: RangeChange;
}) {
  const [lrv, urv] = got.after;
  const words = `${formatPlain(lrv)} … ${formatPlain(urv)} ${unitLabel(got.unit)}`;
  return (
    <HandOver
      tag={fields.tag}
      onTag={(tag) => change({ tag })}
      configuration={
        got.where === 'nowhere'
          ? null
          : { lrv: String(lrv), urv: String(urv), inputUnit: got.unit, reason: `Range changed to ${words}` }
      }
      note={`Range ${words}: ${HEADS[got.where].toLowerCase()}${got.body === null ? '' : ` (${got.body.model})`}.`}
      torqueUnit={unitOfTorque(fields.torque)}
    />
  );
}
