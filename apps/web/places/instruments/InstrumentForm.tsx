'use client';
import type { Body } from '@barys/store/registers';
import { RANGE_QUESTIONS } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useMemo } from 'react';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped, type DraftOfForm } from '@/ui/useTyped';
import { addInstrumentAction, changeInstrumentAction, configureAction } from './actions';
import { ConfigurationFields } from './ConfigurationFields';
import {
  CONFIGURATION_FIELDS,
  type ConfigurationFields as RangeEntry,
  type InstrumentFields,
} from './fields';
import { instrumentSpecs } from './specs';

interface Named {
  readonly id: number;
  readonly name: string;
}

/** Two parts of one form are let go together. */
const together = (one: DraftOfForm, other: DraftOfForm): DraftOfForm => ({
  isBack: one.isBack || other.isBack,
  forget: () => {
    one.forget();
    other.forget();
  },
});

/** A new instrument with its first configuration. */
export function NewInstrumentForm({
  bodies,
  procedures,
  initial,
}: {
  bodies: readonly Body[];
  procedures: readonly Named[];
  initial: InstrumentFields;
}) {
  const [instrument, changeInstrument, draft] = useTyped(initial, 'instrument');
  const [configuration, changeConfiguration, rangeDraft] = useTyped<RangeEntry>(
    { ...CONFIGURATION_FIELDS, reason: 'first entry' },
    'range of a new instrument',
  );
  const drafts = together(draft, rangeDraft);
  const { answer, isPending, form } = useSubmit(addInstrumentAction);
  const specs = useMemo(() => instrumentSpecs(bodies, procedures), [bodies, procedures]);
  return (
    <Stack component="form" sx={{ gap: 1.5 }} {...form(() => ({ instrument, configuration }), drafts.forget)}>
      <Sheet title="Register entry">
        <Draft draft={drafts} />
        <FieldGrid specs={specs} fields={instrument} change={changeInstrument} answer={answer} />
      </Sheet>
      <ConfigurationFields
        fields={configuration}
        change={changeConfiguration}
        body={bodies.find(({ id }) => String(id) === instrument.bodyId)}
      />
      <div>
        <Button type="submit" variant="contained" aria-busy={isPending}>
          Add the instrument
        </Button>
        <Refused answer={unplaced(specs, answer)} />
      </div>
    </Stack>
  );
}

export function ChangeInstrumentForm({
  id,
  revision,
  bodies,
  procedures,
  initial,
}: {
  id: number;
  revision: number;
  bodies: readonly Body[];
  procedures: readonly Named[];
  initial: InstrumentFields;
}) {
  const [instrument, change, draft] = useTyped(initial, `instrument ${id} ${revision}`);
  const { answer, isPending, form } = useSubmit(changeInstrumentAction);
  const specs = useMemo(() => instrumentSpecs(bodies, procedures), [bodies, procedures]);
  return (
    <form {...form(() => ({ id, revision, instrument }), draft.forget)}>
      <Sheet title="Register entry" aside="The range is changed by a new version of the configuration.">
        <Draft draft={draft} />
        <FieldGrid specs={specs} fields={instrument} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 2 }}>
          Keep the changes
        </Button>
        <Refused answer={unplaced(specs, answer)} />
      </Sheet>
    </form>
  );
}

const RANGE_PARTS = ['lrv', 'urv', 'inputUnit', 'outputLow', 'outputHigh', 'outputUnit'] as const;

/** Whether the display showed the range before and was left behind by it. */
const isDisplayLeft = (now: RangeEntry, before: RangeEntry): boolean =>
  before.displayLow === before.lrv &&
  before.displayHigh === before.urv &&
  now.displayLow === before.displayLow &&
  now.displayHigh === before.displayHigh &&
  (now.lrv !== before.lrv || now.urv !== before.urv || now.inputUnit !== before.inputUnit);

export function ConfigureForm({
  id,
  version,
  tag,
  job,
  body,
  before,
  initial,
}: {
  id: number;
  /** Of the configuration in force. */
  version: number;
  tag: string;
  /** The job that goes on afterwards; null where it is only the register. */
  job: number | null;
  body: Body;
  /** In force. */
  before: RangeEntry;
  /** What the form begins with: the same, or what was worked out elsewhere. */
  initial: RangeEntry;
}) {
  const about = `range of ${id} ${version}`;
  const [configuration, change, draft] = useTyped(initial, about);
  const [given, giveMore, givenDraft] = useTyped<Record<string, string>>({}, `${about}, told`);
  const drafts = together(draft, givenDraft);
  const { answer, isPending, form } = useSubmit(configureAction);
  const isMoved = RANGE_PARTS.some((part) => configuration[part] !== before[part]);
  return (
    <Stack
      component="form"
      sx={{ gap: 1.5 }}
      {...form(() => ({ id, tag, job, configuration, given }), drafts.forget)}
    >
      <Draft draft={drafts} />
      <ConfigurationFields fields={configuration} change={change} body={body} />
      {isMoved && isDisplayLeft(configuration, before) && (
        <DisplayLeft configuration={configuration} before={before} change={change} />
      )}
      {isMoved && (
        <Sheet title="Another range: who has to know" aside="due for calibration at once">
          <Stack sx={{ gap: 1 }}>
            {Object.entries(RANGE_QUESTIONS).map(([key, text]) => (
              <TextField
                key={key}
                label={text}
                value={given[key] ?? ''}
                onChange={({ target }) => giveMore({ [key]: target.value })}
                fullWidth
                autoComplete="off"
              />
            ))}
          </Stack>
        </Sheet>
      )}
      <div>
        <Button type="submit" variant="contained" aria-busy={isPending}>
          Put this version in force
        </Button>
        <Refused answer={answer} />
      </div>
    </Stack>
  );
}

/** The display was left behind by the range that it showed. */
function DisplayLeft({
  configuration,
  before,
  change,
}: {
  configuration: RangeEntry;
  before: RangeEntry;
  change: (patch: Partial<RangeEntry>) => void;
}) {
  return (
    <Alert
      severity="warning"
      variant="outlined"
      action={
        <Button
          onClick={() =>
            change({
              displayLow: configuration.lrv,
              displayHigh: configuration.urv,
              displayUnit: configuration.inputUnit,
            })
          }
        >
          Let it follow
        </Button>
      }
    >
      The display showed the range and still shows {before.displayLow} … {before.displayHigh}{' '}
      {before.displayUnit}. Shall it follow?
    </Alert>
  );
}
