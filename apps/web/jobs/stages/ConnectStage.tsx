import { listReferences, rankReferences, type Fit, type JobFile, type Side } from '@barys/store';
import { rangeWords } from '@/references/words';
import { database } from '@/server/database';
import { localDate, showDate } from '@/server/dates';
import { ratioInWords } from '@/ui/ratio';
import { ConnectForm, type ReferenceChoice } from '../ConnectForm';

function toChoice({ reference, ratio, unfit, caution }: Fit): ReferenceChoice {
  return {
    id: reference.id,
    tag: reference.tag,
    about: [reference.description, reference.name, rangeWords(reference)].filter(Boolean).join(', '),
    ratio: ratio === null ? null : ratioInWords(ratio),
    dueOn: reference.dueOn === null ? '' : showDate(reference.dueOn),
    unfit,
    caution,
  };
}

export async function ConnectStage({ job }: { job: JobFile }) {
  const references = await listReferences(database());
  const today = localDate(new Date());
  const choices = (side: Side) => rankReferences(references, job.instrument, side, today).map(toChoice);
  return <ConnectForm job={job.id} pressure={choices('input')} meters={choices('output')} />;
}
