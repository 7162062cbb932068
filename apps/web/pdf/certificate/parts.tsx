/** What every printed page is made of: styles, facts, sections, the marks of a verdict. */
import type { RunEvaluation } from '@barys/core/run';
import { Path, StyleSheet, Svg, Text, View } from '@react-pdf/renderer';
import type { ReactNode } from 'react';
import { PAPER } from '@/ui/palette';
import { FIGURES, WORDS } from '@/pdf/fonts';
import { SHORT_VERDICT_WORD, VERDICT_SHAPES, VERDICT_WORD } from '@/ui/verdict';

export const styles = StyleSheet.create({
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
  first: { width: 52 },
  verdict: { width: 66, paddingLeft: 6, flexDirection: 'row', alignItems: 'center', gap: 3 },
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

export type Fact = readonly [name: string, value: string];

export function Facts({ facts }: { facts: readonly Fact[] }) {
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

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <View wrap={false}>
      <Text style={styles.section}>{title}</Text>
      {children}
    </View>
  );
}

export function Mark({
  verdict,
  isShort = false,
}: {
  verdict: NonNullable<RunEvaluation['verdict']>;
  isShort?: boolean;
}) {
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
      <Text>{(isShort ? SHORT_VERDICT_WORD : VERDICT_WORD)[verdict]}</Text>
    </View>
  );
}

/** What stands at the foot of each page. */
export function Foot({ text }: { text: string }) {
  return (
    <View style={styles.foot} fixed>
      <Text>{text}</Text>
      <Text render={({ pageNumber, totalPages }) => `page ${pageNumber} of ${totalPages}`} />
    </View>
  );
}
