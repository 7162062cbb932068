/** What stays on the instrument: when it was calibrated, by whom, how it was left, when it is due, and where to read on. */
import { asFoundRun, asLeftRun, lastDay, type JobFile } from '@barys/store/jobs';
import { Document, Image, Page, StyleSheet, Text, View } from '@react-pdf/renderer';
import { rangeInWords } from '@/ui/range/rangeInWords';
import { showDate } from '@/server/dates';
import { FIGURES, WORDS } from '@/pdf/fonts';
import { VERDICT_WORD } from '@/ui/verdict';

const MM = 72 / 25.4;

const styles = StyleSheet.create({
  page: {
    fontFamily: WORDS,
    fontSize: 7,
    color: 'black',
    padding: 2.5 * MM,
    flexDirection: 'row',
    gap: 2.5 * MM,
  },
  code: { width: 26 * MM, height: 26 * MM },
  tag: { fontSize: 13, fontWeight: 700, marginBottom: 2 },
  figures: { fontFamily: FIGURES, fontSize: 6.5, marginVertical: 2 },
});

export interface JobLabelEntry {
  readonly job: JobFile;
  /** The code as a PNG in a data address. */
  readonly code: string;
}

export function JobLabel({ job, code }: JobLabelEntry) {
  const run = asLeftRun(job) ?? asFoundRun(job);
  if (run === null) throw new Error(`job ${job.id} has no run`);
  const readers = [...new Set(run.readings.map(({ readBy }) => readBy))].join(', ');
  return (
    <Document title={`Label ${job.tag}`}>
      <Page size={[70 * MM, 37 * MM]} style={styles.page}>
        <Image src={code} style={styles.code} />
        <View style={{ flex: 1 }}>
          <Text style={styles.tag}>{job.tag}</Text>
          <Text>{`Calibrated ${showDate(lastDay(run))}`}</Text>
          <Text>{readers}</Text>
          <Text style={{ fontWeight: 700 }}>{`Due ${showDate(job.nextDue ?? job.instrument.dueOn)}`}</Text>
          <Text style={styles.figures}>
            {rangeInWords(run.madeWith.configuration, '\n').split('\n').slice(0, 2).join('\n')}
          </Text>
          <Text>{`Left ${job.asLeftVerdict === null ? '' : VERDICT_WORD[job.asLeftVerdict]}, job ${job.id}`}</Text>
        </View>
      </Page>
    </Document>
  );
}
