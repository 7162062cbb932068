import { jobsOfInstrument, loadJob, type JobFile } from '@barys/store/jobs';
import { z } from 'zod';
import { fieldsOfConfiguration } from '@/places/instruments/fields';
import { ConfigureForm } from '@/places/instruments/InstrumentForm';
import { database } from '@/server/database';
import { addressOf } from '@/ui/addressOf';
import { PageHead } from '@/ui/PageHead';
import { loadInstrument, type Params } from '@/places/instruments/load';

export const metadata = { title: 'New configuration' };

const asked = z.object({ job: z.coerce.number().int().positive().optional().catch(undefined) });

/** Why the range is changed, as it was said in the job that asks for it. */
function reasonIn({ id: jobId, passed, plan }: JobFile): string {
  const said = passed.filter(({ stage }) => stage === 'judge').at(-1)?.note || (plan?.reason ?? '');
  return `Job ${jobId}${said === '' ? '' : `: ${said}`}`;
}

export default async function ConfigurePage({
  params,
  searchParams,
}: {
  params: Params;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { id, tag, service, body, configuration } = await loadInstrument(params);
  const address = await searchParams;
  const { job: jobId } = asked.parse(address);
  const open = (await jobsOfInstrument(database(), id)).find(
    (job) => job.id === jobId && job.stage === 'adjust',
  );
  const job = open === undefined ? null : await loadJob(database(), open.id);
  return (
    <>
      <PageHead
        title={`${tag}: version ${configuration.version + 1} of the configuration`}
        about={`${service}. Version ${configuration.version} stays readable. A changed range means a calibration, a new label, and telling everybody downstream.`}
      />
      <ConfigureForm
        id={id}
        version={configuration.version}
        tag={tag}
        job={job?.id ?? null}
        body={body}
        before={fieldsOfConfiguration(configuration)}
        initial={addressOf(
          // What the workshop worked out comes in the address.
          {
            ...fieldsOfConfiguration(configuration),
            ...(job?.plan == null ? {} : fieldsOfConfiguration(job.plan.configuration)),
            ...(job === null ? {} : { reason: reasonIn(job) }),
          },
          address,
        )}
      />
    </>
  );
}
