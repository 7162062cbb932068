import { listBenches } from '@barys/store/benches';
import { jobsOfInstrument } from '@barys/store/jobs';
import { SETUP_MOMENTS, setupReadingsOf, setupTolerance } from '@barys/store/registers';
import { z } from 'zod';
import { loadInstrument, type Params } from '@/places/instruments/load';
import { SETUP_FIELDS } from '@/places/instruments/set-up/fields';
import { SetupDesk } from '@/places/instruments/set-up/SetupDesk';
import { SetupReadings } from '@/places/instruments/set-up/SetupReadings';
import { database } from '@/server/database';
import { addressOf } from '@/ui/addressOf';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Set-up walk' };

const asked = z.object({
  job: z.coerce.number().int().positive().optional().catch(undefined),
  moment: z.enum(SETUP_MOMENTS).optional().catch(undefined),
});

const SHOWN = 20;

export default async function SetupPage({
  params,
  searchParams,
}: {
  params: Params;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const query = await searchParams;
  const texts = Object.entries(query).filter(([, text]) => typeof text === 'string') as [string, string][];
  const instrument = await loadInstrument(params, `/set-up?${new URLSearchParams(texts)}`);
  const { id, tag, service, configuration } = instrument;
  const address = asked.parse(query);
  const isShared = Object.keys(SETUP_FIELDS).some((name) => typeof query[name] === 'string');
  const open = (await jobsOfInstrument(database(), id)).find(
    (job) => job.id === address.job && job.signedAt === null && job.cancelledAt === null,
  );
  const job = open === undefined ? null : { id: open.id, moment: address.moment ?? SETUP_MOMENTS[0] };
  return (
    <>
      <PageHead
        title={`${tag}: set-up walk`}
        about={`${service}. Settings of version ${configuration.version}, in the order in which they are made.${job === null ? '' : ` Read in job ${job.id}, ${job.moment}.`}`}
      >
        {job === null ? (
          <LinkButton href={`/instruments/${tag}`}>The instrument</LinkButton>
        ) : (
          <LinkButton href={`/jobs/${job.id}`}>Back to job {job.id}</LinkButton>
        )}
      </PageHead>
      <SetupDesk
        key={`${configuration.version} ${job?.moment ?? ''}`}
        tag={tag}
        configuration={configuration}
        tolerance={setupTolerance(instrument)}
        job={job}
        benches={await listBenches(database(), new Date())}
        shared={isShared ? addressOf(SETUP_FIELDS, query) : null}
      />
      <Sheet title="What was read before" sx={{ mt: 1.5, displayPrint: 'none' }}>
        <SetupReadings readings={await setupReadingsOf(database(), id, SHOWN)} />
      </Sheet>
    </>
  );
}
