/** The certificate of a signed job, on A4 or Letter. */
import { formatPlain, type RunEvaluation } from '@barys/core';
import { asFoundRun, asLeftRun, evaluateStoredRun, type JobFile, type Run, type Site } from '@barys/store';
import { Document, Page, Path, StyleSheet, Svg, Text, View } from '@react-pdf/renderer';
import type { ReactNode } from 'react';
import { rangeInWords } from '@/range/rangeInWords';
import { ADJUSTMENT_WORD, CHECK_WORD, REASON_WORD } from '@/jobs/words';
import { certificateWords } from '@/references/words';
import { showDate, showMoment } from '@/server/dates';
import { corridorPoints } from '@/ui/corridor';
import { figuresFor, type Figures } from '@/ui/figures';
import { PAPER } from '@/ui/palette';
import { VERDICT_SHAPES, VERDICT_WORD } from '@/ui/verdict';
import { CorridorDrawing } from './CorridorDrawing';
import { FIGURES, WORDS } from '@/ui/pdfFonts';

const styles = StyleSheet.create({
  page: { fontFamily: WORDS, fontSize: 8.5, color: PAPER.ink, padding: '30 46 40 46' },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottom: `2 solid ${PAPER.ink}`,
    paddingBottom: 5,
    marginBottom: 8,
  },
  title: { fontSize: 15, fontWeight: 700, marginBottom: 3 },
  section: { fontSize: 9.5, fontWeight: 700, marginTop: 7, marginBottom: 2 },
  columns: { flexDirection: 'row', gap: 18 },
  half: { flex: 1 },
  fact: { flexDirection: 'row', marginBottom: 1 },
  factName: { width: 72, color: PAPER.muted },
  factValue: { flex: 1 },
  row: {
    flexDirection: 'row',
    borderBottom: `0.5 solid ${PAPER.rule}`,
    paddingVertical: 0.8,
    alignItems: 'center',
  },
  cell: { flex: 1, textAlign: 'right', fontFamily: FIGURES },
  first: { width: 58 },
  verdict: { width: 78, paddingLeft: 8, flexDirection: 'row', alignItems: 'center', gap: 3 },
  foot: {
    position: 'absolute',
    bottom: 22,
    left: 46,
    right: 46,
    flexDirection: 'row',
    justifyContent: 'space-between',
    color: PAPER.muted,
    fontSize: 7.5,
  },
});

type Fact = readonly [name: string, value: string];

function Facts({ facts }: { facts: readonly Fact[] }) {
  return (
    <View>
      {facts.map(([name, value]) => (
        <View key={name} style={styles.fact}>
          <Text style={styles.factName}>{name}</Text>
          <Text style={styles.factValue}>{value}</Text>
        </View>
      ))}
    </View>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View wrap={false}>
      <Text style={styles.section}>{title}</Text>
      {children}
    </View>
  );
}

function Mark({ verdict }: { verdict: NonNullable<RunEvaluation['verdict']> }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 3 }}>
      <Svg width={7} height={7} viewBox="0 0 20 20">
        {VERDICT_SHAPES[verdict].map(({ path, isFilled }) => (
          <Path
            key={path}
            d={path}
            stroke={PAPER.ink}
            strokeWidth={2}
            fill={isFilled ? PAPER.ink : '#ffffff'}
          />
        ))}
      </Svg>
      <Text>{VERDICT_WORD[verdict]}</Text>
    </View>
  );
}

function Readings({ run, figures }: { run: Run; figures: Figures }) {
  const { readings } = evaluateStoredRun(run);
  const head = [
    `applied, ${figures.inputUnit}`,
    `ideal, ${figures.outputUnit}`,
    `reading, ${figures.outputUnit}`,
    'error, % of span',
  ];
  return (
    <View>
      <View style={styles.row}>
        <Text style={styles.first}>point</Text>
        {head.map((text) => (
          <Text key={text} style={{ ...styles.cell, fontFamily: WORDS }}>
            {text}
          </Text>
        ))}
        <Text style={styles.verdict}>verdict</Text>
      </View>
      {readings.map((judged, index) => (
        <View key={index} style={styles.row}>
          <Text style={styles.first}>
            {`${formatPlain(judged.nominalPercent)} % ${judged.direction === 'up' ? 'rising' : 'falling'}${judged.cycle > 1 ? `, ${judged.cycle}` : ''}`}
          </Text>
          <Text style={styles.cell}>{run.readings[index]?.appliedText}</Text>
          <Text style={styles.cell}>{figures.output(judged.expected)}</Text>
          <Text style={styles.cell}>{run.readings[index]?.outputText}</Text>
          <Text style={styles.cell}>{figures.percent(judged.errorPercentSpan)}</Text>
          <View style={styles.verdict}>
            <Mark verdict={judged.verdict} />
          </View>
        </View>
      ))}
    </View>
  );
}

function summary(
  { worst, zeroErrorPercentSpan, spanErrorPercentSpan, hysteresisPercentSpan }: RunEvaluation,
  figures: Figures,
): string {
  const parts = [
    ['worst error', worst?.errorPercentSpan],
    ['zero error', zeroErrorPercentSpan],
    ['span error', spanErrorPercentSpan],
  ] as const;
  const said = parts.map(([name, value]) =>
    value == null ? `${name} not known` : `${name} ${figures.percent(value)} %`,
  );
  const loop = hysteresisPercentSpan === null ? 'not known' : `${figures.amount(hysteresisPercentSpan)} %`;
  return `${said.join(', ')}, hysteresis ${loop}, all of output span.`;
}

function RunPart({ run, figures }: { run: Run; figures: Figures }) {
  const evaluation = evaluateStoredRun(run);
  const name = run.kind === 'as-found' ? 'As found' : `As left${run.pass > 1 ? `, pass ${run.pass}` : ''}`;
  return (
    <Section title={`${name}, ${showMoment(run.startedAt)}, ${run.startedBy}`}>
      <Readings run={run} figures={figures} />
      <View style={{ flexDirection: 'row', gap: 6, marginTop: 3, alignItems: 'center' }}>
        {evaluation.verdict !== null && <Mark verdict={evaluation.verdict} />}
        <Text>{summary(evaluation, figures)}</Text>
      </View>
    </Section>
  );
}

const referenceFact = (name: string, reference: Run['madeWith']['meter']): Fact => [
  name,
  `${reference.tag}, ${reference.description}, serial ${reference.serial}; ${certificateWords(reference)}`,
];

/** Why a reference was used that did not fit, where one was. */
const unfitFact = ({ connection }: JobFile): Fact[] =>
  connection === null || connection.referenceReason === ''
    ? []
    : [['Used though unfit', connection.referenceReason]];

export function Certificate({
  job,
  site,
  paper,
}: {
  job: JobFile;
  site: Site | null;
  paper: 'A4' | 'LETTER';
}) {
  const asFound = asFoundRun(job);
  const asLeft = asLeftRun(job);
  if (asFound === null || job.signedAt === null) throw new Error(`job ${job.id} is not signed`);
  const { madeWith } = asFound;
  const { tolerance, ambient, configuration } = madeWith;
  const figures = figuresFor(configuration, madeWith.meter.resolution);
  return (
    <Document
      title={`Calibration certificate ${job.id}, ${job.tag}`}
      author={site?.siteName ?? ''}
      creator="Barys"
      language="en"
    >
      <Page size={paper} style={styles.page}>
        <View style={styles.foot} fixed>
          <Text>{`${job.tag}, job ${job.id}`}</Text>
          <Text render={({ pageNumber, totalPages }) => `page ${pageNumber} of ${totalPages}`} />
        </View>
        <View style={styles.head}>
          <View>
            <Text style={styles.title}>Calibration certificate</Text>
            <Text>{`${site?.siteName ?? ''}${site?.isDemo ? ' (demo: every name and figure is invented)' : ''}`}</Text>
          </View>
          <View style={{ alignItems: 'flex-end' }}>
            <Text style={styles.title}>{job.tag}</Text>
            <Text>{`Job ${job.id}, signed ${showDate(job.signedAt)}`}</Text>
          </View>
        </View>
        <View style={styles.columns}>
          <View style={styles.half}>
            <Facts
              facts={[
                ['Instrument', `${madeWith.body.model}, serial ${job.instrument.serial}`],
                ['Service', `${job.service}, ${job.area}`],
                ['Range', rangeInWords(configuration, ', ')],
                [
                  'Tolerance',
                  `±${formatPlain(tolerance.percentOfSpan)} % of output span; adjust above ${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of it`,
                ],
                [
                  'Configuration',
                  `version ${configuration.version}, damping ${formatPlain(configuration.dampingS)} s`,
                ],
                ['Reason', REASON_WORD[job.reason]],
              ]}
            />
          </View>
          <View style={styles.half}>
            <Facts
              facts={[
                referenceFact('Reference', madeWith.pressureReference),
                referenceFact('Meter', madeWith.meter),
                ...unfitFact(job),
                [
                  'Ambient',
                  `${formatPlain(ambient.temperatureC)} °C, ${formatPlain(ambient.humidityPercent)} % relative humidity, ${formatPlain(ambient.barometerHpa)} hPa`,
                ],
                [
                  'Checked',
                  job.connection?.checksDone.map((check) => CHECK_WORD[check]).join('; ') || 'nothing',
                ],
              ]}
            />
          </View>
        </View>
        <RunPart run={asFound} figures={figures} />
        {job.adjustments.length > 0 && (
          <Section title="Adjustments">
            {job.adjustments.map(
              ({ id, kind, atAppliedText, beforeText, afterText, description, madeBy, madeAt }) => (
                <Text key={id}>
                  {`${ADJUSTMENT_WORD[kind]} at ${atAppliedText} ${figures.inputUnit}: ${beforeText} before, ${afterText} ${figures.outputUnit} after${description === '' ? '' : ` (${description})`}; ${madeBy}, ${showMoment(madeAt)}`}
                </Text>
              ),
            )}
          </Section>
        )}
        {asLeft === null ? (
          <Section title="As left">
            <Text>Left as found: nothing was adjusted.</Text>
          </Section>
        ) : (
          job.runs
            .filter(({ kind }) => kind === 'as-left')
            .map((run) => <RunPart key={run.id} run={run} figures={figures} />)
        )}
        <Section
          title={`Error against the limit: hollow as found${asLeft === null ? '' : ', solid as left'}; point up rising, point down falling`}
        >
          <CorridorDrawing
            asFound={corridorPoints(asFound)}
            asLeft={asLeft === null ? [] : corridorPoints(asLeft)}
            adjustAbovePercent={tolerance.adjustAbovePercentOfLimit}
          />
        </Section>
        <Section title="Statement">
          <Text>
            Errors are reading minus ideal at the value applied. Verdicts by simple acceptance: a reading on
            the limit is inside. Measurement uncertainty is not stated and not part of the verdict.
          </Text>
          {job.remark !== '' && <Text>{`Remark: ${job.remark}`}</Text>}
          {job.passed
            .filter(({ note, stage }) => note !== '' && stage !== 'sign')
            .map(({ stage, note, doneBy }, index) => (
              <Text key={index}>{`Remark at ${stage.replace('-', ' ')}: ${note} (${doneBy})`}</Text>
            ))}
          <Text
            style={{ marginTop: 6, fontWeight: 700 }}
          >{`Signed ${showMoment(job.signedAt)} by ${job.signedBy ?? ''}`}</Text>
        </Section>
      </Page>
    </Document>
  );
}
