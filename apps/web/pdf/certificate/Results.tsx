/** Readings of a run, or as found and as left side by side where both have the same points. */
import { linkWords } from '@/places/jobs/sources';
import type { JudgedReading, RunEvaluation } from '@barys/core/run';
import { formatFixed, formatSigned, withPoint } from '@barys/core/text';
import { besideOf, besideVerdicts, evaluateStoredRun, type Beside, type Run } from '@barys/store/runs';
import { Text, View } from '@react-pdf/renderer';
import { showMoment } from '@/server/dates';
import { besideWord } from '@/places/jobs/columnWords';
import { figuresOfRun, pointWords, type Figures } from '@/ui/figures';
import { WORDS } from '@/pdf/fonts';
import { Mark, Section, styles } from './parts';

export const nameOfRun = ({ kind, pass, thrownAway }: Run): string =>
  `${kind === 'as-found' ? 'As found' : 'As left'}${pass > 1 ? `, pass ${pass}` : ''}${thrownAway === null ? '' : ' (thrown away)'}`;

/** A run's readings by their point, each with its judgement. */
function judgedByPoint(
  run: Run,
): ReadonlyMap<number, { judged: JudgedReading; appliedText: string; outputText: string }> {
  const { readings } = evaluateStoredRun(run);
  return new Map(
    run.readings.flatMap(({ position, appliedText, outputText }, index) => {
      const judged = readings[index];
      return judged === undefined ? [] : [[position, { judged, appliedText, outputText }]];
    }),
  );
}

function Heads({ heads, isDouble }: { heads: readonly string[]; isDouble: boolean }) {
  const group = (key: string) => [
    ...heads.map((text) => (
      <Text key={`${key} ${text}`} style={{ ...styles.cell, fontFamily: WORDS }}>
        {text}
      </Text>
    )),
    <Text key={`${key} verdict`} style={styles.verdict}>
      verdict
    </Text>,
  ];
  return (
    <View style={styles.row}>
      <Text style={styles.first}>point</Text>
      {group('found')}
      {isDouble && group('left')}
    </View>
  );
}

/** Tables of one run, or of two over the same points; `U` is the expanded uncertainty of the error, k = 2. */
function Readings({ runs, figures }: { runs: readonly [Run] | readonly [Run, Run]; figures: Figures }) {
  const isDouble = runs.length === 2;
  const columns = runs.map(judgedByPoint);
  const [first] = runs;
  const heads = isDouble
    ? ['applied', 'reading', 'error %', 'U %']
    : [
        `applied, ${figures.inputUnit}`,
        `ideal, ${figures.outputUnit}`,
        `reading, ${figures.outputUnit}`,
        `error, % of ${figures.errorOf}`,
        `U, % of ${figures.errorOf}`,
      ];
  const cells = (index: number, position: number) => {
    const found = columns[index]?.get(position);
    const why = runs[index]?.marks.find((mark) => mark.position === position && mark.kind === 'no reading');
    if (found === undefined)
      return (
        <Text key={index} style={{ flex: heads.length, paddingLeft: 8 }}>
          {why === undefined ? '' : `no reading: ${why.remark}`}
        </Text>
      );
    const { judged, appliedText, outputText } = found;
    const texts = [
      withPoint(appliedText),
      ...(isDouble ? [] : [figures.output(judged.expected)]),
      withPoint(outputText),
      figures.error(judged),
      figures.uncertainty(judged),
    ];
    return [
      ...texts.map((text, place) => (
        <Text key={`${index} ${place}`} style={styles.cell}>
          {text}
        </Text>
      )),
      <View key={`${index} verdict`} style={styles.verdict}>
        <Mark verdict={judged.verdict} isShort />
      </View>,
    ];
  };
  return (
    <View>
      <Heads heads={heads} isDouble={isDouble} />
      {first.madeWith.points.map((point) => (
        <View key={point.position} style={styles.row} wrap={false}>
          <Text style={styles.first}>{pointWords(point)}</Text>
          {runs.map((_run, index) => cells(index, point.position))}
        </View>
      ))}
    </View>
  );
}

/** The points that are not judged, and why, in a sentence that follows another one. */
function notJudgedInWords({ readings }: RunEvaluation, figures: Figures): string {
  const points = readings.filter(({ verdict }) => verdict === 'not-judged');
  if (points.length === 0) return '';
  const all = points.map((one) => `${pointWords(one)} (U ${figures.uncertainty(one)} %)`).join(', ');
  return ` Not judged: ${all} cannot be judged with this standard, whose uncertainty there exceeds the limit.`;
}

function summary(evaluation: RunEvaluation, figures: Figures): string {
  const { zeroErrorPercentSpan, spanErrorPercentSpan, hysteresisPercentSpan } = evaluation;
  const worst = figures.worst(evaluation);
  const parts = [
    ['zero error', zeroErrorPercentSpan],
    ['span error', spanErrorPercentSpan],
  ] as const;
  const said = parts.map(([name, value]) =>
    value == null ? `${name} not known` : `${name} ${figures.percent(value)} %`,
  );
  if (figures.errorOf === 'reading')
    return `worst error ${worst === null ? 'not known' : `${figures.error(worst)} % of reading`}.${notJudgedInWords(evaluation, figures)}`;
  const loop = hysteresisPercentSpan === null ? 'not known' : `${figures.amount(hysteresisPercentSpan)} %`;
  const led = worst === null ? 'not known' : `${figures.error(worst)} % of ${figures.errorOf}`;
  return `worst error ${led}; ${said.join(', ')}, hysteresis ${loop} of output span.${notJudgedInWords(evaluation, figures)}`;
}

function Summary({ run, label }: { run: Run; label: string }) {
  const evaluation = evaluateStoredRun(run);
  return (
    <View style={{ flexDirection: 'row', gap: 6, marginTop: 3, alignItems: 'center' }}>
      {label !== '' && <Text style={{ fontWeight: 700 }}>{label}</Text>}
      {evaluation.verdict !== null && <Mark verdict={evaluation.verdict} />}
      <Text style={{ flex: 1 }}>{summary(evaluation, figuresOfRun(run.madeWith))}</Text>
    </View>
  );
}

/** What was read beside the output, its worst error of each kind and the verdict on it. */
function BesideLines({ run, label }: { run: Run; label: string }) {
  const readings = besideOf(run);
  const verdicts = besideVerdicts(readings);
  return (Object.keys(verdicts) as Beside[]).map((kind) => {
    const verdict = verdicts[kind];
    const figures = readings.flatMap((one) => one[kind] ?? []);
    const [worst] = [...figures].sort((a, b) => Math.abs(b.percentOfSpan) - Math.abs(a.percentOfSpan));
    if (verdict === undefined || worst === undefined) return null;
    const shown = kind === 'friction' ? formatFixed : formatSigned;
    return (
      <View key={kind} style={{ flexDirection: 'row', gap: 6, marginTop: 2, alignItems: 'center' }}>
        {label !== '' && <Text style={{ fontWeight: 700 }}>{label}</Text>}
        <Mark verdict={verdict} />
        <Text style={{ flex: 1 }}>
          {`${besideWord(run.madeWith, kind)}: largest ${shown(worst.percentOfSpan, 3)} % of span${worst.limitPercentOfSpan === null ? '' : `, limit ${formatFixed(worst.limitPercentOfSpan, 3)} %`}.`}
        </Text>
      </View>
    );
  });
}

/** The first reading tells when; a run entered from a sheet was taken before it was begun here. */
const whenAndWho = ({ startedAt, startedBy, readings }: Run): string => {
  const taken = readings
    .map(({ takenAt, readAt }) => takenAt ?? readAt)
    .sort((a, b) => a.valueOf() - b.valueOf());
  return `${showMoment(taken[0] ?? startedAt)}, ${[...new Set(readings.map(({ readBy }) => readBy))].join(' and ') || startedBy}`;
};

/** @param isLeftSo whether nothing was adjusted after it, so that it is the run as left as well */
export function RunPart({ run, isLeftSo = false }: { run: Run; isLeftSo?: boolean }) {
  const name = isLeftSo ? `${nameOfRun(run)} and so left` : nameOfRun(run);
  return (
    <Section title={`${name}, ${whenAndWho(run)}`}>
      {run.thrownAway !== null && <Text>{`Does not count: ${run.thrownAway.reason}`}</Text>}
      <Readings runs={[run]} figures={figuresOfRun(run.madeWith)} />
      {linkWords(run).map((line) => (
        <Text key={line}>{line}</Text>
      ))}
      <Summary run={run} label={isLeftSo ? 'As found and as left' : nameOfRun(run)} />
      <BesideLines run={run} label="" />
    </Section>
  );
}

/** Both runs beside each other; units are named once, above. */
export function FoundAndLeft({ found, left }: { found: Run; left: Run }) {
  const figures = figuresOfRun(found.madeWith);
  return (
    <Section
      title={`${nameOfRun(found)}, ${whenAndWho(found)}, and ${nameOfRun(left).toLowerCase()}, ${whenAndWho(left)}`}
    >
      <View style={{ flexDirection: 'row' }}>
        <Text style={styles.first} />
        <Text style={{ flex: 1, fontWeight: 700, textAlign: 'center' }}>
          {`as found: ${figures.inputUnit}, ${figures.outputUnit}, error and U in % of ${figures.errorOf}`}
        </Text>
        <Text style={{ flex: 1, fontWeight: 700, textAlign: 'center' }}>as left, the same units</Text>
      </View>
      <Readings runs={[found, left]} figures={figures} />
      <Summary run={found} label="As found" />
      <BesideLines run={found} label="As found" />
      <Summary run={left} label="As left" />
      <BesideLines run={left} label="As left" />
    </Section>
  );
}
