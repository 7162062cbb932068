'use client';
import { digitalWords, outputWords, unitWords, type ReadSetup, type RequestAnswer } from '@barys/core/port';
import type { ShownBench } from '@barys/store/benches';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useCallback, useState } from 'react';
import { TransmitterChoice, useTransmitter } from '@/places/bench/TransmitterChoice';
import type { Transmitter } from '@/places/bench/transmitters';
import { useRequest } from '@/places/bench/useRequest';
import { askForSetupAction } from '@/places/instruments/set-up/actions';
import { Facts } from '@/ui/Facts';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useTyped } from '@/ui/useTyped';
import { askForWriteAction } from './actions';
import { actOfFields, beforeAndAfter, WRITE_FIELDS, writeSpecs } from './fields';

/** The instrument read first, then changed, then read again; all of it in the log of the job. */
export function WritePanel({
  job,
  tag,
  inputUnit,
  benches,
}: {
  job: number;
  tag: string;
  inputUnit: string;
  benches: readonly ShownBench[];
}) {
  const { one, ...choice } = useTransmitter(benches);
  const [known, setKnown] = useState<{ readonly of: Transmitter; readonly read: ReadSetup } | null>(null);
  const heard = useCallback(
    (answer: RequestAnswer) => {
      if (answer.kind === 'set-up' && one !== null) setKnown({ of: one, read: answer.setup });
    },
    [one],
  );
  const { ask, refused, isPending, waiting, answer } = useRequest(askForSetupAction, heard);
  // One that is away for a moment stays: what was asked of it is not forgotten.
  const of = one ?? known?.of ?? null;
  if (of === null) return null;
  // What was read of one says nothing of another.
  const read = known?.of.key === of.key ? known.read : null;
  return (
    <Sheet title="Over a link">
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        {one === null ? (
          <Typography>Nothing is heard of {of.words} now.</Typography>
        ) : (
          <TransmitterChoice one={one} {...choice} />
        )}
        <Button
          variant="outlined"
          onClick={() => ask({ tag, bench: of.bench, device: of.device })}
          aria-busy={isPending || waiting !== null}
          sx={{ minHeight: 44 }}
        >
          Read it
        </Button>
      </Box>
      <Refused answer={refused} />
      <Typography role="status" sx={{ my: 1 }}>
        {waiting ??
          (answer?.kind === 'trouble'
            ? answer.words
            : read === null
              ? 'It is read before anything is changed at it, so that it is the one that is meant.'
              : '')}
      </Typography>
      {read !== null && (
        <>
          <AsItIs read={read} tag={tag} />
          <WriteForm
            key={`${of.key} ${read.serial}`}
            job={job}
            one={of}
            inputUnit={inputUnit}
            read={read}
            onRead={(after) => setKnown({ of, read: after })}
          />
        </>
      )}
    </Sheet>
  );
}

function AsItIs({ read, tag }: { read: ReadSetup; tag: string }) {
  const unit = unitWords(read.unit);
  return (
    <>
      <Facts
        facts={[
          ['Instrument', `${read.tag || 'without a tag'}, number ${read.serial}`],
          ['Digital value', digitalWords(read)],
          ['Its own output', `${outputWords(read)}${read.isFixed ? ', fixed' : ''}`],
          ['Range', `${read.lrv} to ${read.urv} ${unit}, ${read.transfer ?? 'a curve of its own'}`],
          ['Damping', `${read.dampingS} s`],
        ]}
      />
      {read.tag.toUpperCase() !== tag.slice(0, 8).toUpperCase() && (
        <Typography sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          It does not say that it is {tag}: make sure that it is the one that is meant.
        </Typography>
      )}
      {read.isProtected && <Typography sx={{ fontWeight: 600 }}>It is write protected.</Typography>}
      {read.isFixed && (
        <Typography sx={{ color: 'var(--adjust)', fontWeight: 600 }}>
          Its output is fixed and follows no pressure: let the loop go before you leave it.
        </Typography>
      )}
    </>
  );
}

function WriteForm({
  job,
  one,
  inputUnit,
  read,
  onRead,
}: {
  job: number;
  one: Transmitter;
  inputUnit: string;
  read: ReadSetup;
  onRead: (after: ReadSetup) => void;
}) {
  const router = useRouter();
  const [fields, change, draft] = useTyped({ ...WRITE_FIELDS, unit: read.unit }, `write ${job}`);
  const heard = useCallback(
    (answer: RequestAnswer) => {
      if (answer.kind !== 'write') return;
      onRead(answer.after);
      draft.forget();
      // The log beside it has a line more.
      router.refresh();
    },
    [onRead, draft, router],
  );
  const { ask, refused, isPending, waiting, answer } = useRequest(askForWriteAction, heard);
  const specs = writeSpecs(fields.act, inputUnit);
  const both = beforeAndAfter(actOfFields(fields), read);
  return (
    <Box sx={{ mt: 1.5 }}>
      <FieldGrid specs={specs} fields={fields} change={change} answer={refused} />
      {both !== null && (
        <Typography sx={{ mt: 1 }}>
          {both[0]} → <strong>{both[1]}</strong>
        </Typography>
      )}
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', mt: 1 }}>
        <Button
          variant="contained"
          disabled={both === null}
          aria-busy={isPending || waiting !== null}
          onClick={() => ask({ job, bench: one.bench, device: one.device, serial: read.serial, fields })}
          sx={{ minHeight: 44 }}
        >
          Change it
        </Button>
        <Typography role="status">
          {waiting ??
            (answer?.kind === 'trouble'
              ? answer.words
              : answer?.kind === 'write'
                ? 'Done, read again, and logged.'
                : '')}
        </Typography>
      </Box>
      <Refused answer={unplaced(specs, refused)} />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        Whatever follows this loop sees it move: its controller stays in manual, and trips are bypassed as
        agreed. Sensor trims and what is the instrument’s own are left to its own tool.
      </Typography>
    </Box>
  );
}
