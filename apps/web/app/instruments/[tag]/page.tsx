import { HOOK_UPS } from '@barys/core/hookup';
import { settingWords, transferWords } from '@barys/core/setup';
import { formatPlain } from '@barys/core/text';
import { convertPressure, PRESSURE_UNITS } from '@barys/core/units';
import { JOB_REASONS, jobsOfInstrument, whyNotFor, whyNotWalkable } from '@barys/store/jobs';
import {
  accuracyOfBody,
  biasesOf,
  loopsOf,
  listLiquids,
  notesOf,
  rangeMisfit,
  toleranceOf,
  type Instrument,
  vesselsOf,
} from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { NoteList } from '@/places/instruments/NoteList';
import { LoopSheet } from '@/places/instruments/LoopSheet';
import { VesselSheet } from '@/places/instruments/VesselSheet';
import { StartJob } from '@/places/instruments/StartJob';
import { BiasTable } from '@/places/jobs/BiasTable';
import { JobTable } from '@/places/jobs/JobTable';
import { STAGE_WORD } from '@/places/jobs/words';
import { pointsInWords } from '@/places/office/procedures/words';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { loadInstrument, type Params } from '@/places/instruments/load';

export async function generateMetadata({ params }: { params: Params }) {
  return { title: decodeURIComponent((await params).tag) };
}

/** Facts that are known; what nobody entered is left out. */
const entered = (facts: readonly (readonly [string, ReactNode])[]) =>
  facts.filter(([, value]) => value !== '' && value !== null);

function registerFacts(instrument: Instrument, today: string) {
  const { dueOn, body, configuration } = instrument;
  const tolerance = toleranceOf(instrument);
  const span = Math.abs(
    convertPressure(configuration.urv, configuration.inputUnit, body.unit) -
      convertPressure(configuration.lrv, configuration.inputUnit, body.unit),
  );
  const accuracy = accuracyOfBody(body, span);
  return entered([
    [
      'Next due',
      instrument.state === 'retired'
        ? 'retired'
        : `${showDate(dueOn)} (${dueInWords(dueOn, today)}), every ${instrument.intervalMonths} months`,
    ],
    [
      'Tolerance',
      `${toleranceInWords(tolerance)}, adjust above ${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of it`,
    ],
    ['Measures', `${instrument.measures}, ${instrument.kind}`],
    ['Hook-up', HOOK_UPS[instrument.hookUp].name],
    [
      'Procedure',
      <>
        <Link prefetch={false} href={`/office/procedures/${instrument.procedure.id}`}>
          {instrument.procedure.name}
        </Link>
        : {pointsInWords(instrument.procedure.content)}
      </>,
    ],
    ['Transfer', transferWords(configuration.transferFunction)],
    [
      'Damping',
      `${formatPlain(configuration.dampingS)} s${configuration.displayDampingS === null ? '' : `, display ${formatPlain(configuration.displayDampingS)} s`}`,
    ],
    [
      'Switches',
      configuration.switchingPoints.length === 0 ? null : settingWords(configuration, 'switchingPoints'),
    ],
    [
      'Body',
      <>
        <Link prefetch={false} href={`/office/bodies/${body.id}`}>
          {body.model}
        </Link>
        {accuracy === null
          ? ''
          : `, maker's accuracy ±${formatPlain(Number(accuracy.toPrecision(3)))} % at this span`}
      </>,
    ],
    ['Place', [instrument.site, instrument.area].filter(Boolean).join(', ')],
    ['Walk', instrument.walk === null ? null : `place ${instrument.walk}`],
    ['Loop', instrument.loop],
    ['Criticality', instrument.criticality],
    ['Hazards', instrument.hazards.length === 0 ? 'none entered' : instrument.hazards.join('; ')],
    ['Owner', instrument.owner],
    ['State', instrument.state],
    ['Serial', instrument.serial],
    ['Description', instrument.description],
    [
      'Configuration',
      <Link key="versions" prefetch={false} href={`/instruments/${instrument.tag}/versions`}>
        version {configuration.version}, {showDate(configuration.madeAt)}, {configuration.madeBy}:{' '}
        {configuration.reason}
      </Link>,
    ],
  ]);
}

function StaveSheet({ instrument }: { instrument: Instrument }) {
  const { tag, body, configuration } = instrument;
  return (
    <Sheet
      title="Signal stave"
      aside={
        <>
          the rail of pressure ends where the body does: {formatPlain(body.lowerRangeLimit)} …{' '}
          {formatPlain(body.upperRangeLimit)} {PRESSURE_UNITS[body.unit].label}
        </>
      }
    >
      <Stave body={body} configuration={configuration} spacing={76} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', mt: 1 }}>
        <LinkButton href={`/instruments/${tag}/edit`}>Change the entry</LinkButton>
        <LinkButton href={`/instruments/${tag}/configure`}>New configuration</LinkButton>
        <LinkButton href={`/instruments/${tag}/history`}>History and interval</LinkButton>
        <LinkButton href={`/instruments/${tag}/versions`}>Compare versions</LinkButton>
        <LinkButton href={`/instruments/${tag}/set-up`}>Set-up walk</LinkButton>
        <LinkButton href={`/instruments/${tag}/references`}>Which reference fits</LinkButton>
        <LinkButton href={`/instruments/labels?ids=${instrument.id}&sheet=single`} isFile>
          Label (PDF)
        </LinkButton>
      </Box>
    </Sheet>
  );
}

const NOTES = 20;

/** What the workshop left with an instrument; no vessel where it measures no level. */
async function foundInWorkshop({ id, measures }: Instrument) {
  const db = database();
  const isLevel = measures === 'level';
  const [vessels, liquids, notes, biases, loops] = await Promise.all([
    isLevel ? vesselsOf(db, id) : null,
    isLevel ? listLiquids(db) : [],
    notesOf(db, id, NOTES),
    biasesOf(db, id, NOTES),
    loopsOf(db, id),
  ]);
  return { vessels, liquids, notes, biases, loops };
}

function FromWorkshop({
  instrument,
  found,
}: {
  instrument: Instrument;
  found: Awaited<ReturnType<typeof foundInWorkshop>>;
}) {
  return (
    <>
      {found.vessels !== null && (
        <VesselSheet instrument={instrument} vessels={found.vessels} liquids={found.liquids} />
      )}
      {instrument.configuration.signal !== 'indication' && (
        <LoopSheet instrument={instrument} loops={found.loops} />
      )}
      {found.biases.length > 0 && (
        <Sheet title="Biases entered hot" aside="the first is in force">
          <BiasTable biases={found.biases} />
        </Sheet>
      )}
      {found.notes.length > 0 && (
        <Sheet title="Notes from the workshop">
          <NoteList notes={found.notes} />
        </Sheet>
      )}
    </>
  );
}

export default async function InstrumentPage({ params }: { params: Params }) {
  const instrument = await loadInstrument(params);
  const db = database();
  const [jobs, found] = await Promise.all([jobsOfInstrument(db, instrument.id), foundInWorkshop(instrument)]);
  const { configuration, body, tag } = instrument;
  const open = jobs.find((job) => job.signedAt === null && job.cancelledAt === null);
  const misfit = rangeMisfit(body, configuration.inputUnit, configuration.lrv, configuration.urv);
  const why = whyNotWalkable(instrument);
  return (
    <>
      <PageHead
        title={
          <>
            {tag}{' '}
            <Box component="span" sx={{ fontWeight: 400 }}>
              {instrument.service}
            </Box>
          </>
        }
        about={rangeInWords(configuration)}
      >
        {open !== undefined ? (
          <LinkButton href={`/jobs/${open.id}`} isMain>
            Go on with job {open.id}: {STAGE_WORD[open.stage]}
          </LinkButton>
        ) : why === null ? (
          <StartJob
            tag={tag}
            reasons={JOB_REASONS.filter(
              (reason) =>
                whyNotFor(reason, instrument) === null && (reason !== 'loop check' || found.loops.length > 0),
            )}
          />
        ) : (
          <Typography variant="body2" sx={{ color: 'text.secondary', maxWidth: 380 }}>
            {why}
          </Typography>
        )}
      </PageHead>
      {misfit !== null && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          {misfit}
        </Alert>
      )}
      <Columns columns="1.5fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <StaveSheet instrument={instrument} />
          <Sheet title="Jobs on this instrument">
            <JobTable
              jobs={jobs}
              showInstrument={false}
              empty="None yet. The first signed job sets the next due date."
            />
          </Sheet>
          <FromWorkshop instrument={instrument} found={found} />
        </Stack>
        <Sheet title="Identity and limits">
          <Facts facts={registerFacts(instrument, localDate(new Date()))} />
        </Sheet>
      </Columns>
    </>
  );
}
