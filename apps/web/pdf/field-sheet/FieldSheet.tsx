/** A job on paper: what to do, what to apply and expect, and room to write down what was read and when. */
import { HOOK_UPS, moveInWords } from '@barys/core/hookup';
import { plannedPoints } from '@barys/core/procedure';
import { acceptedOutput } from '@barys/core/run';
import { SETTINGS, settingWords } from '@barys/core/setup';
import { expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { leakLimit, questionsAt, type JobFile } from '@barys/store/jobs';
import { toleranceOf } from '@barys/store/registers';
import { limitsOf } from '@barys/store/runs';
import { Document, Image, Page, Text, View } from '@react-pdf/renderer';
import { Facts, Foot, Section, styles } from '@/pdf/certificate/parts';
import { SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { REASON_WORD } from '@/places/jobs/words';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { serialWords } from '@/places/references/words';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { showDate } from '@/server/dates';
import { figuresFor, pointWords } from '@/ui/figures';

export interface FieldSheetEntry {
  readonly job: JobFile;
  /** Standards that fit, for the input and for the output, in words; the output is null where it is read by eye. */
  readonly standards: string;
  readonly meters: string | null;
  /** A code that opens the job, as a PNG in a data address. */
  readonly code: string;
  readonly paper: 'A4' | 'LETTER';
}

function Points({ job }: { job: JobFile }) {
  const { instrument } = job;
  const { configuration, procedure } = instrument;
  const figures = figuresFor(configuration);
  const limits = limitsOf(toleranceOf(instrument));
  const heads = [
    `apply, ${figures.inputUnit}`,
    `expect, ${figures.outputUnit}`,
    'lowest',
    'highest',
    'applied',
    'read',
    'time',
  ];
  return (
    <View>
      <View style={styles.row}>
        <Text style={styles.first}>point</Text>
        {heads.map((head) => (
          <Text key={head} style={{ flex: 1, textAlign: 'right' }}>
            {head}
          </Text>
        ))}
      </View>
      {plannedPoints(procedure.content, configuration).map(
        ({ position, nominalPercent, direction, cycle, applied }) => {
          const { lowest, highest } = acceptedOutput(configuration, limits, applied);
          const texts = [
            figures.input(applied),
            figures.output(expectedOutput(configuration, applied)),
            figures.output(lowest),
            figures.output(highest),
          ];
          return (
            <View key={position} style={{ ...styles.row, paddingVertical: 4 }} wrap={false}>
              <Text style={styles.first}>{pointWords({ nominalPercent, direction, cycle })}</Text>
              {texts.map((text, index) => (
                <Text key={index} style={styles.cell}>
                  {text}
                </Text>
              ))}
              {['applied', 'read', 'time'].map((empty) => (
                <Text key={empty} style={{ ...styles.cell, color: '#999999' }}>
                  ________
                </Text>
              ))}
            </View>
          );
        },
      )}
    </View>
  );
}

export function FieldSheet({ job, standards, meters, code, paper }: FieldSheetEntry) {
  const { instrument } = job;
  // A hot check is made while the instrument measures: nothing is isolated, connected or run.
  const isHotCheck = job.reason === 'hot check';
  const asked = (
    isHotCheck ? (['authorise', 'return'] as const) : (['authorise', 'connect', 'return'] as const)
  ).flatMap((stage) => questionsAt(stage, instrument, { isHotCheck }).map(({ text }) => text));
  return (
    <Document title={`Field sheet ${job.id}, ${job.tag}`} creator="Barys" language="en">
      <Page size={paper} style={styles.page}>
        <Foot text={`${job.tag}, job ${job.id}: type it in afterwards, with the times`} />
        <View style={styles.head}>
          <View>
            <Text style={styles.title}>{`Field sheet, ${job.tag}`}</Text>
            <Text>{`${job.service}, ${job.area}`}</Text>
          </View>
          <View style={{ flexDirection: 'row', gap: 10 }}>
            <Text>{`Job ${job.id}`}</Text>
            <Image src={code} style={{ width: 38, height: 38 }} />
          </View>
        </View>
        <Facts
          facts={[
            ['Why', `${REASON_WORD[job.reason]}; due ${showDate(instrument.dueOn)}`],
            ['Instrument', `${instrument.body.model}, ${serialWords(instrument.serial)}`],
            ['Range', rangeInWords(instrument.configuration, ', ')],
            ['Limit', toleranceInWords(toleranceOf(instrument))],
            ['Procedure', `${instrument.procedure.name}, version ${instrument.procedure.version}`],
            ['Standards', standards],
            ['Meter', meters ?? 'none: read by eye'],
            [
              'Leak',
              `at most ${formatPlain(Number(leakLimit({ kind: instrument.kind, configuration: instrument.configuration, tolerance: toleranceOf(instrument) }).toPrecision(2)))} % of span a minute`,
            ],
            ['Hazards', instrument.hazards.join('; ') || 'none entered: look for yourself'],
          ]}
        />
        <Section title="Asked before anything is touched, and afterwards">
          {asked.map((text) => (
            <Text key={text} style={{ marginBottom: 3 }}>{`[   ]  ${text}`}</Text>
          ))}
          <Text>{SITE_RULES_FIRST}</Text>
        </Section>
        <Lists job={job} />
        {!isHotCheck && <Work job={job} />}
      </Page>
    </Document>
  );
}

/** The lists of the job, to be ticked on paper. */
function Lists({ job: { lines } }: { job: JobFile }) {
  return [...new Set(lines.map(({ list }) => list))].map((list) => (
    <Section key={list} title={list.charAt(0).toUpperCase() + list.slice(1)}>
      {lines
        .filter((line) => line.list === list)
        .map(({ id, text, isDone }) => (
          <Text key={id} style={{ marginBottom: 3 }}>{`[ ${isDone ? 'x' : '  '} ]  ${text}`}</Text>
        ))}
    </Section>
  ));
}

/** What has to be set, and room for what is read there. */
function SetupList({ job: { instrument } }: { job: JobFile }) {
  return SETTINGS.flatMap(([key, name]) => {
    const words = settingWords(instrument.configuration, key);
    return words === ''
      ? []
      : [<Text key={key} style={{ marginBottom: 3 }}>{`${name}: ${words}    read ____________`}</Text>];
  });
}

function Work({ job }: { job: JobFile }) {
  const { hookUp } = job.instrument;
  const { isolate, restore, name, caution } = HOOK_UPS[hookUp];
  const order = (moves: typeof isolate) =>
    moves.map((move, index) => `${index + 1} ${moveInWords(hookUp, move)}`).join('    ');
  return (
    <>
      <Section title={`Valves: ${name}`}>
        <Text>{`Out of service:  ${order(isolate)}`}</Text>
        <Text>{`Back:  ${order(restore)}`}</Text>
        <Text>{caution}</Text>
      </Section>
      <Section title="References, ambient">
        <Text>Standard ____________________ meter ____________________ leak _______ in _____ min</Text>
        <Text style={{ marginTop: 5 }}>
          Temperature ________ °C humidity ________ % barometer ________ hPa
        </Text>
      </Section>
      <Section title="Set-up: as it has to be, and as it is set">
        <SetupList job={job} />
      </Section>
      <Section title="As found">
        <Points job={job} />
      </Section>
      <Section title="Adjusted: what, applied, before, after; remarks, name, date">
        <Text style={{ marginTop: 8 }}>{'_'.repeat(96)}</Text>
        <Text style={{ marginTop: 8 }}>{'_'.repeat(96)}</Text>
      </Section>
      <Section title="As left, where something was adjusted">
        <Points job={job} />
      </Section>
    </>
  );
}
