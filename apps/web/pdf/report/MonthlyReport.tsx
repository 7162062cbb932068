/** What a month of calibrations came to, on paper. */
import type { CalibrationLine, Costs } from '@barys/store/insight';
import { formatFixed, formatSigned } from '@barys/core/text';
import { Document, Page, Text, View } from '@react-pdf/renderer';
import { Foot, Mark, Section, styles } from '@/pdf/certificate/parts';
import type { Figure } from '@/places/insight/overview/figures';
import { showDate } from '@/server/dates';
import { PAPER } from '@/ui/palette';

export interface ReportEntry {
  readonly site: string;
  /** In words: `October 2026`. */
  readonly month: string;
  readonly madeAt: string;
  readonly found: Figure;
  readonly families: Figure;
  readonly overdue: Figure;
  readonly workload: Figure;
  readonly adjusted: Figure;
  readonly causes: Figure;
  readonly references: Figure;
  readonly costs: Costs;
  /** Found outside in the month, and how many there are in all. */
  readonly outside: { readonly lines: readonly CalibrationLine[]; readonly count: number };
  readonly paper: 'A4' | 'LETTER';
}

const BAR_PT = 120;

/** Bounds, the last of several figures, take more room. */
const widthOf = (column: number, of: number): number => (of > 2 && column === of - 1 ? 2 : 1);

/** A table with a bar for each line. */
function FigureTable({ figure: { shape, table }, none }: { figure: Figure; none: string }) {
  if (table.rows.length === 0) return <Text style={{ color: PAPER.muted }}>{none}</Text>;
  const most = shape.most ?? Math.max(1, ...shape.values.map((value) => value ?? 0));
  const [first, ...others] = table.header;
  return (
    <View>
      <View style={styles.row}>
        <Text style={{ width: 130, color: PAPER.muted }}>{first}</Text>
        <View style={{ width: BAR_PT + 8 }} />
        {others.map((head, column) => (
          <Text
            key={head}
            style={{ flex: widthOf(column, others.length), textAlign: 'right', color: PAPER.muted }}
          >
            {head}
          </Text>
        ))}
      </View>
      {table.rows.map(({ cells: [name = '', ...cells] }, index) => (
        <View key={name} style={styles.row} wrap={false}>
          <Text style={{ width: 130 }}>{name}</Text>
          <View style={{ width: BAR_PT + 8, height: 7 }}>
            <View
              style={{
                width: ((shape.values[index] ?? 0) / most) * BAR_PT,
                height: 7,
                backgroundColor: PAPER.liquid,
                border: `0.5 solid ${PAPER.ink}`,
              }}
            />
          </View>
          {cells.map((cell, column) => (
            <Text key={column} style={{ ...styles.cell, flex: widthOf(column, cells.length) }}>
              {cell}
            </Text>
          ))}
        </View>
      ))}
    </View>
  );
}

function Outside({ lines, count }: ReportEntry['outside']) {
  if (count === 0) return <Text style={{ color: PAPER.muted }}>None.</Text>;
  return (
    <View>
      {lines.map(({ id, doneOn, tag, service, verdict, worstOfLimit, standard, doneBy }) => (
        <View key={id} style={styles.row} wrap={false}>
          <Text style={{ width: 62 }}>{showDate(doneOn)}</Text>
          <Text style={{ width: 62, fontWeight: 700 }}>{tag}</Text>
          <Text style={{ flex: 1 }}>{service}</Text>
          <View style={{ width: 56 }}>{verdict !== null && <Mark verdict={verdict} isShort />}</View>
          <Text style={{ width: 60, textAlign: 'right' }}>
            {worstOfLimit === null ? '—' : `${formatSigned(worstOfLimit, 2)} limits`}
          </Text>
          <Text style={{ width: 50, textAlign: 'right' }}>{standard}</Text>
          <Text style={{ width: 80, textAlign: 'right' }}>{doneBy}</Text>
        </View>
      ))}
      {count > lines.length && (
        <Text>And {count - lines.length} more; the list of calibrations has all.</Text>
      )}
    </View>
  );
}

const jobs = (count: number): string => formatFixed(count, 1);

export function MonthlyReport(entry: ReportEntry) {
  const { site, month, madeAt, costs, paper } = entry;
  return (
    <Document title={`Calibrations, ${month}`} author={site}>
      <Page size={paper} style={styles.page}>
        <View style={styles.head}>
          <View>
            <Text style={styles.title}>Calibrations, {month}</Text>
            <Text>{site}</Text>
          </View>
          <Text style={{ color: PAPER.muted }}>made {madeAt}</Text>
        </View>
        <Section title="As found, the twelve months up to its end (bars: found inside)">
          <FigureTable figure={entry.found} none="None." />
        </Section>
        <Text style={styles.section}>Found outside in {month}</Text>
        <Outside {...entry.outside} />
        <Section title="Overdue at the end of each month">
          <FigureTable figure={entry.overdue} none="None." />
        </Section>
        <Section title="Work ahead, as the register says today (bars: hours)">
          <FigureTable figure={entry.workload} none="Nothing comes due." />
        </Section>
        <Section title="Worst families, as counted with the intervals (bars: found inside)">
          <FigureTable figure={entry.families} none="No family has enough calibrations yet." />
        </Section>
        <Section title="Adjusted, by jobs">
          <FigureTable figure={entry.adjusted} none="Nothing was adjusted." />
        </Section>
        <Section title="Found behind readings, by jobs">
          <FigureTable figure={entry.causes} none="Nothing was taken into a record." />
        </Section>
        <Section title="Use of references, by runs">
          <FigureTable figure={entry.references} none="None was used." />
        </Section>
        <Section title="What intervals cost, as advised last">
          <Text>
            {jobs(costs.spared)} jobs a year at {costs.longer} instruments that may go longer;{' '}
            {jobs(costs.added)} jobs a year more at {costs.shorter} that should come sooner;{' '}
            {formatFixed(costs.daysOutside, 0)} instrument-days a year expected outside unseen,{' '}
            {formatFixed(costs.daysOutsideAdvised, 0)} as advised.
          </Text>
        </Section>
        <Foot text={`${site}, calibrations of ${month}`} />
      </Page>
    </Document>
  );
}
