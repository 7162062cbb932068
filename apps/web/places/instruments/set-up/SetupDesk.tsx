'use client';
import {
  compareSetups,
  SETTINGS,
  settingWords,
  workDifference,
  type Difference,
  type SettingKey,
  type Setup,
  type SetupComparison,
  type WantedSetup,
} from '@barys/core/setup';
import type { Step } from '@barys/core/working';
import type { ShownBench } from '@barys/store/benches';
import type { Configuration } from '@barys/store/registers';
import { judgeChecks, wantedSetup, workCheck, type SetupMoment } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useCallback } from 'react';
import { HandOver } from '@/places/workshop/hand-over/HandOver';
import type { Answer } from '@/server/answer';
import { addressOf } from '@/ui/addressOf';
import { Draft } from '@/ui/Draft';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { useHistory } from '@/ui/useAddress';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped, type DraftOfForm } from '@/ui/useTyped';
import { keepSetupAction } from './actions';
import { CheckSheet } from './CheckSheet';
import { csvOfSetup } from './csv';
import { DifferenceWords } from './DifferenceWords';
import {
  asItMustBe,
  checksOfFields,
  configurationAsRead,
  SETUP_FIELDS,
  setupOfFields,
  type SetupFields,
} from './fields';
import { OverLink } from './OverLink';
import { partOf, type Part } from './partOf';
import { RangeBeside } from './RangeBeside';
import { ReadField } from './ReadField';

export interface SetupDeskProps {
  readonly tag: string;
  readonly configuration: Configuration;
  /** Largest error, per cent of span. */
  readonly tolerance: number;
  /** The job in which it is read, and when there. */
  readonly job: { readonly id: number; readonly moment: SetupMoment } | null;
  /** Where transmitters can be asked how they are set. */
  readonly benches: readonly ShownBench[];
  /** What the address says was read; null where it says nothing. */
  readonly shared: Partial<SetupFields> | null;
}

/** A note on an instrument holds no more. */
const LONGEST_NOTE = 2000;

const ROW = {
  display: 'grid',
  gridTemplateColumns: {
    xs: 'minmax(0, 1fr)',
    md: '190px minmax(0, 0.8fr) minmax(0, 1.1fr) minmax(0, 1.4fr)',
  },
  '@media print': { gridTemplateColumns: '190px 1fr 1fr 1.4fr' },
  columnGap: 2,
  rowGap: 0.75,
  alignItems: 'baseline',
  py: 1,
  borderTop: '1px solid var(--rule)',
};

/** The settings in their order: what has to be there, what was read, and what a difference does; and who goes on with it. */
export function SetupDesk({ tag, configuration, tolerance, job, benches, shared }: SetupDeskProps) {
  // What somebody shared stands before what was typed here once.
  const [fields, change, draft] = useTyped<SetupFields>(
    { ...SETUP_FIELDS, ...shared },
    shared !== null
      ? null
      : `set-up of ${tag} ${configuration.version} ${job === null ? '' : `${job.id} ${job.moment}`}`,
  );
  useReadInAddress(fields, job, change);
  const { answer, isPending, isKept, form } = useSubmit(keepSetupAction);
  const wanted = wantedSetup(configuration, tolerance);
  const read = partOf(() => setupOfFields(fields));
  const checks = partOf(() => checksOfFields(fields));
  const found = read.value;
  // Figures beyond all reason are refused in words, not by the page.
  const comparison = partOf(() => (found === null ? null : compareSetups(wanted, found)));
  const compared = comparison.value;
  const given = checks.value;
  const judged = partOf(() => (given === null ? [] : judgeChecks(given, configuration, tolerance)));
  return (
    <Stack sx={{ gap: 1.5 }}>
      <OverLink tag={tag} configuration={configuration} benches={benches} change={change} />
      <Stack
        component="form"
        sx={{ gap: 1.5 }}
        {...form(
          () => ({ tag, version: configuration.version, job, fields }),
          () => {
            // It stands below now; once more would be another reading.
            change(SETUP_FIELDS);
            draft.forget();
          },
        )}
      >
        <SettingsSheet
          tag={tag}
          configuration={configuration}
          wanted={wanted}
          fields={fields}
          change={change}
          draft={draft}
          found={found}
          compared={compared}
          fault={read.fault ?? comparison.fault}
        />
        <RangeBeside configuration={configuration} read={read.value} change={change} />
        <CheckSheet
          fields={fields}
          change={change}
          results={judged.value ?? []}
          stepsOf={(name) => (given === null ? [] : workCheck(name, given, configuration))}
          fault={checks.fault ?? judged.fault}
        />
        <KeepSheet
          remark={fields.remark}
          onRemark={(remark) => change({ remark })}
          word={job === null ? 'Keep what was read' : `Keep, ${job.moment}, in job ${job.id}`}
          answer={answer}
          isPending={isPending}
          isKept={isKept}
        />
      </Stack>
      {job === null && found !== null && compared !== null && compared.differences.length > 0 && (
        <HandOver
          tag={tag}
          configuration={configurationAsRead(configuration, found)}
          note={noteOf(compared)}
          about="What was read becomes what has to be set. To put the instrument right instead, set it as the list says, and read it again."
        />
      )}
    </Stack>
  );
}

/** What a note on the instrument begins with. */
const noteOf = ({ differences }: SetupComparison): string =>
  `Set-up: ${differences.map(({ name, wanted, read }) => `${name}: ${read} instead of ${wanted}`).join('. ')}.`.slice(
    0,
    LONGEST_NOTE,
  );

/** The address says what was read, so that a link and Back show the same; job and moment stay in it. */
function useReadInAddress(
  fields: SetupFields,
  job: SetupDeskProps['job'],
  change: (fields: SetupFields) => void,
): void {
  const queryOf = useCallback(
    (texts: SetupFields) => {
      const ofJob = job === null ? [] : [['job', String(job.id)] as const, ['moment', job.moment] as const];
      const typed = Object.entries(texts).filter(
        ([name, text]) => text !== SETUP_FIELDS[name as keyof SetupFields],
      );
      return String(new URLSearchParams([...ofJob, ...typed].map(([name, text]) => [name, text])));
    },
    [job],
  );
  const restore = useCallback(
    (given: URLSearchParams) => {
      const next = addressOf(SETUP_FIELDS, Object.fromEntries(given));
      change(next);
      return queryOf(next);
    },
    [change, queryOf],
  );
  useHistory(queryOf(fields), restore);
}

function KeepSheet({
  remark,
  onRemark,
  word,
  answer,
  isPending,
  isKept,
}: {
  remark: string;
  onRemark: (remark: string) => void;
  word: string;
  answer: Answer;
  isPending: boolean;
  isKept: boolean;
}) {
  return (
    <Sheet title="Keep it" sx={{ displayPrint: 'none' }}>
      <Stack sx={{ gap: 1.5, maxWidth: 560 }}>
        <TextField
          label="Remark"
          value={remark}
          onChange={({ target }) => onRemark(target.value)}
          multiline
        />
        <div>
          <Button type="submit" variant="contained" aria-busy={isPending}>
            {word}
          </Button>
        </div>
        <Refused answer={answer} />
        {isKept && (
          <Alert severity="success" variant="outlined">
            Kept below, with what it was compared with.
          </Alert>
        )}
      </Stack>
    </Sheet>
  );
}

function SettingsSheet({
  tag,
  configuration,
  wanted,
  fields,
  change,
  draft,
  found,
  compared,
  fault,
}: {
  tag: string;
  configuration: Configuration;
  wanted: WantedSetup;
  fields: SetupFields;
  change: (patch: Partial<SetupFields>) => void;
  draft: DraftOfForm;
  found: Setup | null;
  compared: SetupComparison | null;
  fault: Part<unknown>['fault'];
}) {
  const must = asItMustBe(configuration);
  return (
    <Sheet
      title="The settings, in order"
      aside={<TakeAlong file={`set-up-${tag}.csv`} csv={() => csvOfSetup(wanted, found, compared)} />}
    >
      <Draft draft={draft} />
      <Heads />
      {SETTINGS.map(([key, name]) => {
        const difference = compared?.differences.find((one) => one.key === key);
        return (
          <SettingRow
            key={key}
            setting={key}
            name={name}
            wanted={settingWords(wanted, key) || 'not entered'}
            fields={fields}
            change={change}
            must={must}
            isWanted={wanted[key] !== null}
            wrong={fault?.field === key ? fault.message : null}
            difference={difference}
            steps={difference === undefined || found === null ? [] : workDifference(wanted, found, key)}
            isSame={compared?.same.includes(key) ?? false}
          />
        );
      })}
      {fault !== null && (
        <Typography role="alert" sx={{ color: 'var(--outside)', mt: 1 }}>
          {fault.message}
        </Typography>
      )}
    </Sheet>
  );
}

function Heads() {
  return (
    <Box sx={{ ...ROW, display: { xs: 'none', md: 'grid' }, borderTop: 0, color: 'text.secondary' }}>
      {['Setting', 'Has to be', 'Read at the instrument', 'What it does'].map((word) => (
        <Typography key={word} variant="body2">
          {word}
        </Typography>
      ))}
    </Box>
  );
}

function SettingRow({
  setting,
  name,
  wanted,
  fields,
  change,
  must,
  isWanted,
  wrong,
  difference,
  steps,
  isSame,
}: {
  setting: SettingKey;
  name: string;
  wanted: string;
  fields: SetupFields;
  change: (patch: Partial<SetupFields>) => void;
  must: ReturnType<typeof asItMustBe>;
  isWanted: boolean;
  wrong: string | null;
  difference: Difference | undefined;
  steps: readonly Step[];
  isSame: boolean;
}) {
  const take = () =>
    change(
      setting === 'transferFunction'
        ? { transfer: must.transfer, knee: must.knee, table: must.table }
        : { [setting]: must[setting] },
    );
  return (
    <Box sx={{ ...ROW, breakInside: 'avoid' }} role="group" aria-label={name}>
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        {name}
      </Typography>
      <Typography variant="body2" sx={{ color: isWanted ? 'text.primary' : 'text.secondary' }}>
        {wanted}
      </Typography>
      <Stack direction="row" sx={{ gap: 1, alignItems: 'flex-start' }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <ReadField setting={setting} name={name} fields={fields} change={change} wrong={wrong} />
        </Box>
        {isWanted && (
          <Button
            onClick={take}
            aria-label={`${name}: the same`}
            sx={{ minHeight: 44, displayPrint: 'none' }}
          >
            Same
          </Button>
        )}
      </Stack>
      <Box>
        {isSame && (
          <Typography variant="body2" sx={{ color: 'var(--within)' }}>
            as it has to be
          </Typography>
        )}
        {difference !== undefined && <DifferenceWords difference={difference} steps={steps} />}
      </Box>
    </Box>
  );
}
