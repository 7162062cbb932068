/**
 * The certificate of a signed job, on A4 or Letter, with what ISO/IEC 17025:2017, 7.8.2 and 7.8.4 ask for (from memory):
 * who, what, where, when, by which method, under which conditions, against what, with which uncertainty and rule.
 */
import { HOOK_UPS } from '@barys/core/hookup';
import { formatPlain, withPoint } from '@barys/core/text';
import type { PressureKind } from '@barys/core/units';
import { shortHash, type Seal } from '@barys/store/db';
import {
  asFoundRun,
  asLeftRun,
  lastDay,
  hasSamePoints,
  type Amendment,
  type Connection,
  type JobFile,
} from '@barys/store/jobs';
import type { Letterhead, Site } from '@barys/store/people';
import type { JobDoubt } from '@barys/store/registers';
import type { Run } from '@barys/store/runs';
import { Document, Image, Page, Text, View } from '@react-pdf/renderer';
import { readInWords } from '@/places/jobs/advice/words';
import {
  ADJUSTMENT_WORD,
  checkInWords,
  daysInWords,
  doubtsInWords,
  headInWords,
  leakInWords,
  placeInWords,
  REASON_WORD,
  STAGE_WORD,
} from '@/places/jobs/words';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { certificateWords, serialWords, unitWord } from '@/places/references/words';
import { showDate, showMoment } from '@/server/dates';
import { corridorOf } from '@/ui/corridor-shape';
import { ruleInWords, standardsOf, whyNotTraceable } from './claims';
import { CorridorDrawing } from './CorridorDrawing';
import { Facts, Foot, Section, styles, type Fact } from './parts';
import { FoundAndLeft, RunPart } from './Results';

const referenceFact = (name: string, reference: Run['madeWith']['pressureReference']): Fact => [
  name,
  `${reference.tag}, ${reference.description}, ${serialWords(reference.serial)}; ${certificateWords(reference)}`,
];

const customerFact = (head: Letterhead | undefined): Fact[] =>
  head === undefined || head.customer === ''
    ? []
    : [['Customer', [head.customer, head.customerAddress].filter((part) => part !== '').join(', ')]];

/** What was calibrated, as the run knows it. */
function rangeFacts({ madeWith }: Run): Fact[] {
  const { configuration, procedure, tolerance } = madeWith;
  return [
    ['Range', rangeInWords(configuration, ', ')],
    [
      'Tolerance',
      `${toleranceInWords(tolerance).replace('of span', 'of output span')}; adjust above ${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of it`,
    ],
    ['Configuration', `version ${configuration.version}, damping ${formatPlain(configuration.dampingS)} s`],
    [
      'Method',
      procedure === null ? 'not named' : `procedure ${procedure.name}, version ${procedure.version}`,
    ],
  ];
}

/** Against what and in which air, as the run knows it. */
function standardFacts({ madeWith }: Run): Fact[] {
  const { ambient, meter, secondReference } = madeWith;
  return [
    referenceFact('Reference', madeWith.pressureReference),
    ...(secondReference === null ? [] : [referenceFact('Second reference', secondReference)]),
    meter === null ? ['Output', 'read by eye'] : referenceFact('Meter', meter),
    [
      'Ambient',
      `${formatPlain(ambient.temperatureC)} °C, ${formatPlain(ambient.humidityPercent)} % relative humidity, ${formatPlain(ambient.barometerHpa)} hPa`,
    ],
  ];
}

/** The facts of both; what was another as left is named as such. */
function factsOfBoth<T>(of: (known: T) => Fact[], asFound: T, asLeft: T | null): Fact[] {
  const found = of(asFound);
  const changed = (asLeft === null ? [] : of(asLeft)).filter(
    ([name, value]) => !found.some((fact) => fact[0] === name && fact[1] === value),
  );
  return [...found, ...changed.map(([name, value]): Fact => [`${name}, as left`, value])];
}

/** When, where and by whom the readings were taken, which is not when and by whom they were entered or signed. */
function workFacts(job: JobFile, asFound: Run, asLeft: Run | null): Fact[] {
  const readers = [
    ...new Set([asFound, asLeft].flatMap((run) => run?.readings.map(({ readBy }) => readBy) ?? [])),
  ];
  const place = job.connections.at(-1)?.place;
  return [
    [
      'Calibrated',
      asLeft === null
        ? daysInWords([asFound])
        : `as found ${daysInWords([asFound])}, as left ${daysInWords([asLeft])}`,
    ],
    ...(place === undefined ? [] : [['Place', placeInWords(place, job.area)] as const]),
    ['Readings by', readers.join(', ')],
    ['Reason', REASON_WORD[job.reason]],
  ];
}

function instrumentFacts(job: JobFile, asFound: Run, asLeft: Run | null): Fact[] {
  return [
    ['Instrument', `${asFound.madeWith.body.model}, ${serialWords(job.instrument.serial)}`],
    ['Service', `${job.service}, ${job.area}`],
    ...factsOfBoth(rangeFacts, asFound, asLeft),
    ...workFacts(job, asFound, asLeft),
  ];
}

/** How it was connected and checked. */
const connectionFacts =
  (kind: PressureKind) =>
  (connection: Connection): Fact[] => {
    const { referenceReason, checksDone, leak, heightM } = connection;
    return [
      ...(referenceReason === '' ? [] : [['Used though unfit', referenceReason] as const]),
      ['Checked', checksDone.map((check) => checkInWords(check, kind)).join('; ') || 'nothing'],
      ...(leak === null ? [] : [['Leak check', leakInWords(leak)] as const]),
      ...(heightM === 0 ? [] : [['Height', headInWords(connection)] as const]),
    ];
  };

function conditionFacts({ connections, instrument }: JobFile, asFound: Run, asLeft: Run | null): Fact[] {
  const [first] = connections;
  const anew = connections.length > 1 ? (connections.at(-1) ?? null) : null;
  return [
    ...factsOfBoth(standardFacts, asFound, asLeft),
    ...(first === undefined ? [] : factsOfBoth(connectionFacts(instrument.kind), first, anew)),
  ];
}

/** Stages that were passed over, remarks on the way, overshot approaches: where the work left its method. */
function deviations(job: JobFile): string[] {
  const passed = job.passed.flatMap(({ stage, note, doneBy, isSkip }) =>
    note === '' || stage === 'sign' || stage === 'review'
      ? []
      : [`${isSkip ? 'Passed over' : 'Remark at'} ${STAGE_WORD[stage].toLowerCase()}: ${note} (${doneBy})`],
  );
  const points = job.runs.flatMap(({ marks }) =>
    marks.flatMap(({ kind, position, remark, markedBy }) =>
      kind === 'overshot'
        ? [`Point ${position} was overshot and approached again (${markedBy})`]
        : [`Point ${position}, ${kind}: ${remark} (${markedBy})`],
    ),
  );
  const faults = job.moves.filter((move) => move.faults.length > 0).length;
  return [
    ...passed,
    ...points,
    ...(faults === 0
      ? []
      : [
          `${faults} valve ${faults === 1 ? 'move' : 'moves'} on the ${HOOK_UPS[job.instrument.hookUp].name} left the usual order; see the record`,
        ]),
  ];
}

function Statement({ job, run, seal }: { job: JobFile; run: Run; seal: CertificateEntry['seal'] }) {
  const { madeWith } = run;
  const why = whyNotTraceable(standardsOf(madeWith), lastDay(run));
  const rest = deviations(job);
  const corrected = standardsOf(madeWith).filter(({ results }) =>
    results.some(({ correction }) => correction !== 0),
  );
  return (
    <Section title="Statement">
      <Text>Errors are reading minus ideal at the value applied. {ruleInWords(madeWith.decisionRule)}</Text>
      <Text>
        U is the expanded uncertainty of the error, k = 2, about 95 %: standard and meter by certificate and
        specification, and what can be read of each. It does not hold what the instrument does afterwards.
      </Text>
      <Text>
        {why === null
          ? 'Traceability is claimed through the certificates of the standards named above.'
          : `Traceability is not claimed: ${why}.`}{' '}
        The results relate to this instrument only, as it was. Not to be copied in part.
      </Text>
      {corrected.length > 0 && (
        <Text>{`Errors are with the corrections that the certificate of ${corrected.map(({ tag }) => tag).join(' and of ')} states; readings stand as read.`}</Text>
      )}
      {rest.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
      {job.remark !== '' && <Text>{`Remark: ${job.remark}`}</Text>}
      <Text style={{ marginTop: 6, fontWeight: 700 }}>
        {`Signed ${job.signedAt === null ? '' : showMoment(job.signedAt)} by ${job.signedBy ?? ''}`}
      </Text>
      <Text style={{ fontWeight: 700 }}>
        {job.reviewedAt === null
          ? job.stage === 'review'
            ? 'Waits for the review of a second person: not issued yet'
            : 'Issued without a review, as the site has it'
          : `Reviewed and issued ${showMoment(job.reviewedAt)} by ${job.reviewedBy ?? ''}${job.reviewRemark === '' ? '' : `: ${job.reviewRemark}`}`}
      </Text>
      {seal !== null && <Text>{`In the trail under seal ${seal.number}, ${shortHash(seal.hash)}`}</Text>}
    </Section>
  );
}

export interface CertificateEntry {
  readonly job: JobFile;
  readonly site: Site | null;
  readonly amendments: readonly Amendment[];
  /** What covers the signature in the trail; null while it waits for it. */
  readonly seal: Pick<Seal, 'number' | 'hash'> | null;
  /** What was found since of its standards. */
  readonly doubts: readonly JobDoubt[];
  /** A code that opens the record, as a PNG in a data address. */
  readonly code: string;
  readonly paper: 'A4' | 'LETTER';
}

function Head({
  job,
  site,
  code,
  calibratedOn,
}: Pick<CertificateEntry, 'job' | 'site' | 'code'> & { calibratedOn: string }) {
  const head = job.letterhead ?? site?.letterhead;
  return (
    <View style={styles.head}>
      <View>
        <Text style={styles.title}>Calibration certificate</Text>
        <Text style={{ fontWeight: 700 }}>{head?.laboratory || site?.siteName}</Text>
        {head?.laboratoryAddress !== '' && <Text>{head?.laboratoryAddress}</Text>}
        {site?.isDemo === true && <Text>Demo: every name and figure is invented.</Text>}
      </View>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <View style={{ alignItems: 'flex-end' }}>
          <Text style={styles.title}>{job.tag}</Text>
          <Text>{`Job ${job.id}, calibrated ${showDate(calibratedOn)}`}</Text>
        </View>
        <Image src={code} style={{ width: 38, height: 38 }} />
      </View>
    </View>
  );
}

function Adjustments({ job }: Pick<CertificateEntry, 'job'>) {
  if (job.adjustments.length === 0) return null;
  return (
    <Section title="Adjustments">
      {job.adjustments.map((one) => (
        <Text key={one.id}>
          {`${ADJUSTMENT_WORD[one.kind]} at ${withPoint(one.atAppliedText)} ${unitWord(one.inputUnit)}: ${readInWords(withPoint(one.beforeText), one)} before, ${readInWords(withPoint(one.afterText), one)} after${one.toReceiver === '' ? '' : `, until ${one.toReceiver} agreed`}${one.description === '' ? '' : ` (${one.description})`}${one.against === '' ? '' : `; against: ${one.against}`}; ${one.madeBy}, ${showMoment(one.madeAt)}`}
        </Text>
      ))}
    </Section>
  );
}

function Amendments({ amendments }: Pick<CertificateEntry, 'amendments'>) {
  const inForce = amendments.filter(({ state }) => state === 'in force');
  if (inForce.length === 0) return null;
  return (
    <Section title="Amendments to this certificate; what was signed stands above">
      {inForce.map(({ id, what, beforeText, afterText, reason, amendedBy, amendedAt, reviewedBy }) => (
        <Text key={id}>
          {`${what}: “${beforeText}” is amended to “${afterText}”; ${reason} (${amendedBy}, ${showMoment(amendedAt)}${reviewedBy === null ? '' : `, agreed by ${reviewedBy}`})`}
        </Text>
      ))}
    </Section>
  );
}

export function Certificate({ job, site, amendments, seal, doubts, code, paper }: CertificateEntry) {
  const asFound = asFoundRun(job);
  const asLeft = asLeftRun(job);
  if (asFound === null || job.signedAt === null) throw new Error(`job ${job.id} is not signed`);
  const isSideBySide = asLeft !== null && hasSamePoints(asFound, asLeft);
  const shownBeside = isSideBySide ? [asFound.id, asLeft.id] : [];
  const head = job.letterhead ?? site?.letterhead;
  const corridor = corridorOf(asFound, asLeft);
  return (
    <Document
      title={`Calibration certificate ${job.id}, ${job.tag}`}
      author={site?.siteName ?? ''}
      creator="Barys"
      language="en"
    >
      <Page size={paper} style={styles.page}>
        <Foot text={`${job.tag}, job ${job.id}`} />
        <Head job={job} site={site} code={code} calibratedOn={lastDay(asLeft ?? asFound)} />
        <View style={styles.columns}>
          <View style={styles.half}>
            <Facts facts={[...customerFact(head), ...instrumentFacts(job, asFound, asLeft)]} />
          </View>
          <View style={styles.half}>
            <Facts facts={conditionFacts(job, asFound, asLeft)} />
          </View>
        </View>
        {isSideBySide && <FoundAndLeft found={asFound} left={asLeft} />}
        {job.runs
          .filter(({ id, kind }) => !shownBeside.includes(id) && kind === 'as-found')
          .map((run) => (
            <RunPart key={run.id} run={run} isLeftSo={asLeft === null && run.id === asFound.id} />
          ))}
        <Adjustments job={job} />
        {asLeft === null && (
          <Section title="As left">
            <Text>Left as found: nothing was adjusted.</Text>
          </Section>
        )}
        {job.runs
          .filter(({ id, kind }) => !shownBeside.includes(id) && kind === 'as-left')
          .map((run) => (
            <RunPart key={run.id} run={run} />
          ))}
        <Section
          title={`Error against the limit: hollow as found${asLeft === null ? '' : ', solid as left'}; point up rising, point down falling; bars are U${corridor.guard.length === 0 ? '' : '; dotted is the guard band'}`}
        >
          <CorridorDrawing shape={corridor} />
        </Section>
        <Statement job={job} run={asLeft ?? asFound} seal={seal} />
        {doubts.length > 0 && (
          <Section title="Known since">
            {doubtsInWords(doubts).map((line) => (
              <Text key={line}>{line}</Text>
            ))}
          </Section>
        )}
        <Amendments amendments={amendments} />
      </Page>
    </Document>
  );
}
