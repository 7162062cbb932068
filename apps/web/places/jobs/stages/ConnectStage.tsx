import { PRESSURE_UNITS } from '@barys/core/units';
import { asFoundRun, questionsAt, type JobFile } from '@barys/store/jobs';
import { listReferences, toleranceOf } from '@barys/store/registers';
import { quantityWanted, rankReferences, type Fit, type Side } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import { rangeWords } from '@/places/references/words';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { ratioInWords } from '@/ui/ratio';
import { ConnectForm } from '@/places/jobs/connect/ConnectForm';
import type { ReferenceChoice } from '@/places/jobs/connect/ReferencePick';
import { SetupPanel } from '@/places/jobs/SetupPanel';
import { connectionKind } from '@/places/jobs/connectionKind';

function toChoice({ reference, ratio, unfit }: Fit): ReferenceChoice {
  return {
    id: reference.id,
    tag: reference.tag,
    about: [reference.description, reference.name, rangeWords(reference)].filter(Boolean).join(', '),
    ratio: ratio === null ? null : ratioInWords(ratio),
    dueOn: reference.dueOn === null ? '' : showDate(reference.dueOn),
    unfit,
  };
}

export async function ConnectStage({ job }: { job: JobFile }) {
  const { instrument } = job;
  const { configuration, kind } = instrument;
  const asFound = asFoundRun(job);
  const references = await listReferences(database());
  const today = localDate(new Date());
  const choices = (side: Side) => rankReferences(references, instrument, side, { today }).map(toChoice);
  return (
    <Stack sx={{ gap: 1.5 }}>
      <SetupPanel job={job} moment="as set" />
      <ConnectForm
        job={job.id}
        pressure={choices('input')}
        meters={quantityWanted(instrument, 'output') === null ? null : choices('output')}
        questions={questionsAt('connect', instrument)}
        leak={{
          kind: instrument.kind,
          configuration: instrument.configuration,
          tolerance: toleranceOf(instrument),
        }}
        inputUnit={PRESSURE_UNITS[instrument.configuration.inputUnit].label}
        isSmart={instrument.body.technology === 'smart'}
        isDifferential={kind === 'differential'}
        goesBelow={
          Math.min(configuration.lrv, configuration.urv) < 0 && kind !== 'absolute' && kind !== 'vacuum'
        }
        isOddSupply={configuration.signal === 'mA-10-50'}
        display={{
          unit: instrument.configuration.displayUnit,
          low: instrument.configuration.displayLow,
          high: instrument.configuration.displayHigh,
        }}
        tag={instrument.tag}
        isAgain={
          asFound !== null &&
          (job.adjustments.length > 0 || asFound.madeWith.configuration.version !== configuration.version)
        }
        kind={connectionKind(instrument)}
      />
    </Stack>
  );
}
