import { listReferences, rankReferences, type Fit, type JobFile } from '@barys/store';
import { formatPlain } from '@barys/core';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { ratioInWords } from '@/ui/ratio';
import { ConnectForm, type ReferenceChoice } from '../ConnectForm';

function toChoice({ reference, ratio, unfit, caution }: Fit): ReferenceChoice {
  return {
    tag: reference.tag,
    about: `${reference.description}, ${formatPlain(reference.rangeLow)} … ${formatPlain(reference.rangeHigh)} ${reference.unit}`,
    ratio: ratio === null ? null : ratioInWords(ratio),
    dueOn: showDate(reference.dueOn),
    unfit,
    caution,
  };
}

export async function ConnectStage({ job }: { job: JobFile }) {
  const references = await listReferences(database());
  const today = localDate(new Date());
  const choices = (quantity: 'pressure' | 'current') =>
    rankReferences(references, quantity, job.instrument, today).map(toChoice);
  return <ConnectForm job={job.id} pressure={choices('pressure')} meters={choices('current')} />;
}
