/** Labels with a code that opens the instrument's page: a sheet of 24 on A4, or one on a page of its own. */
import { rangeInWords } from '@/ui/range/rangeInWords';
import { showDate } from '@/server/dates';
import { FIGURES, WORDS } from '@/pdf/fonts';
import type { Instrument } from '@barys/store/registers';
import { Document, Image, Page, StyleSheet, Text, View } from '@react-pdf/renderer';

const MM = 72 / 25.4;
/** 70 by 37 mm, three by eight on A4: the commonest sheet of labels in Europe. */
const WIDTH = 70 * MM;
const HEIGHT = 37 * MM;
const PER_SHEET = 24;

const styles = StyleSheet.create({
  page: { fontFamily: WORDS, fontSize: 7, color: 'black' },
  sheet: { flexDirection: 'row', flexWrap: 'wrap', paddingTop: 0.5 * MM },
  label: { width: WIDTH, height: HEIGHT, padding: 3 * MM, flexDirection: 'row', gap: 2.5 * MM },
  code: { width: 26 * MM, height: 26 * MM },
  words: { flex: 1 },
  tag: { fontSize: 13, fontWeight: 700, marginBottom: 2 },
  figures: { fontFamily: FIGURES, fontSize: 6.5, marginVertical: 2 },
});

export interface LabelEntry {
  readonly instrument: Instrument;
  /** The code as a PNG in a data address. */
  readonly code: string;
}

function Label({ entry: { instrument, code } }: { entry: LabelEntry }) {
  const { tag, service, configuration, dueOn, serial } = instrument;
  return (
    <View style={styles.label} wrap={false}>
      <Image src={code} style={styles.code} />
      <View style={styles.words}>
        <Text style={styles.tag}>{tag}</Text>
        <Text>{service}</Text>
        <Text style={styles.figures}>{rangeInWords(configuration, '\n')}</Text>
        <Text>Due {showDate(dueOn)}</Text>
        {serial !== '' && <Text>Serial {serial}</Text>}
      </View>
    </View>
  );
}

export function LabelSheets({ entries }: { entries: readonly LabelEntry[] }) {
  const sheets = Array.from({ length: Math.ceil(entries.length / PER_SHEET) }, (_, index) =>
    entries.slice(index * PER_SHEET, (index + 1) * PER_SHEET),
  );
  return (
    <Document title="Labels">
      {sheets.map((sheet, index) => (
        <Page key={index} size="A4" style={styles.page}>
          <View style={styles.sheet}>
            {sheet.map((entry) => (
              <Label key={entry.instrument.id} entry={entry} />
            ))}
          </View>
        </Page>
      ))}
    </Document>
  );
}

export function SingleLabels({ entries }: { entries: readonly LabelEntry[] }) {
  return (
    <Document title="Labels">
      {entries.map((entry) => (
        <Page key={entry.instrument.id} size={[WIDTH, HEIGHT]} style={styles.page}>
          <Label entry={entry} />
        </Page>
      ))}
    </Document>
  );
}
