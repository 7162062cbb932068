'use client';
/** What reads the output: a meter with its leads in the loop, a null meter, a column of mercury. */
import { formatFixed } from '@barys/core/text';
import { LEADS, type Lead, type PracticeBench } from '@barys/rig/practice';
import { Box, Key, LINE, Press, Text, type Do } from './parts';
import { Meniscus, NullFace } from './Scales';

/** Where the leads can be: their two clips, and the word that stands there. */
const PLACES: Readonly<
  Record<
    Lead,
    {
      readonly x: number;
      readonly y: number;
      readonly word: string;
      readonly wordX: number;
      readonly wordY: number;
      readonly anchor: 'start' | 'middle' | 'end';
    }
  >
> = {
  'in series': { x: 510, y: 288, word: 'in series', wordX: 526, wordY: 293, anchor: 'start' },
  'across the test terminals': { x: 620, y: 262, word: 'test', wordX: 620, wordY: 286, anchor: 'middle' },
  'across the supply': { x: 640, y: 330, word: '+ and −', wordX: 655, wordY: 325, anchor: 'start' },
  off: { x: 480, y: 330, word: 'off', wordX: 480, wordY: 316, anchor: 'middle' },
};

function Leads({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { at } = bench.leads;
  const end = PLACES[at];
  return (
    <>
      <path
        d={`M 404 326 C 404 ${end.y - 4} ${(404 + end.x) / 2} ${end.y} ${end.x - 4} ${end.y} M 424 326 C 424 ${end.y + 10} ${(424 + end.x) / 2} ${end.y + 8} ${end.x + 2} ${end.y + 4}`}
        fill="none"
        stroke="var(--now)"
        strokeWidth={2}
      />
      <g role="radiogroup" aria-label="Leads of the meter">
        {LEADS.map((lead) => {
          const { x, y, word, wordX, wordY, anchor } = PLACES[lead];
          const isAt = lead === at;
          return (
            <Press
              key={lead}
              x={x - 20}
              y={y - 20}
              width={40}
              height={40}
              name={`Leads ${lead}`}
              radio
              isOn={isAt}
              onPress={onDo && (() => onDo({ do: 'lead', to: lead }))}
            >
              <circle
                cx={20}
                cy={20}
                r={isAt ? 8 : 6}
                fill={isAt ? 'var(--now)' : 'var(--sheet)'}
                stroke="var(--ink)"
                strokeWidth={2}
              />
              <Text x={wordX - x + 20} y={wordY - y + 20} size={13} colour="var(--muted)" anchor={anchor}>
                {word}
              </Text>
            </Press>
          );
        })}
      </g>
    </>
  );
}

/** How far the output is from what the null meter is set to, per cent of span. */
function deviationOf({ output, nullAt, lesson }: PracticeBench): number | null {
  const { outputLow, outputHigh } = lesson.range;
  return output === null
    ? null
    : ((output - (nullAt === 0 ? outputLow : outputHigh)) / (outputHigh - outputLow)) * 100;
}

function NullMeter({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  return (
    <>
      <path d="M 510 248 V 300 M 710 248 V 300" {...LINE} strokeWidth={2} />
      <Box x={430} y={280} width={310} height={130}>
        <NullFace x={120} y={118} deviation={deviationOf(bench)} />
        <Text x={266} y={20} size={13} colour="var(--muted)">
          % of span
        </Text>
        <g role="radiogroup" aria-label="The null meter stands at nothing at">
          <Key
            x={234}
            y={32}
            width={64}
            name="0 %"
            word="0 %"
            radio
            isOn={bench.nullAt === 0}
            onPress={onDo && (() => onDo({ do: 'null', at: 0 }))}
          />
          <Key
            x={234}
            y={80}
            width={64}
            name="100 %"
            word="100 %"
            radio
            isOn={bench.nullAt === 100}
            onPress={onDo && (() => onDo({ do: 'null', at: 100 }))}
          />
        </g>
      </Box>
    </>
  );
}

/** A loop with its supply, and a meter whose leads are moved. */
function Loop({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { leads, shown } = bench;
  const isSeries = leads.at === 'in series' || leads.at === 'off' ? leads.at === 'in series' : false;
  const reads = leads.shown;
  return (
    <>
      <path
        d={`M 510 248 V 280 M 510 296 V 384 H 600 M 710 248 V 340 M 580 248 V 262 H 660 V 248`}
        {...LINE}
        strokeWidth={2}
      />
      {!isSeries && <path d="M 510 280 V 296" {...LINE} strokeWidth={2} />}
      <Box x={600} y={340} width={140} height={68}>
        <Text x={70} y={30} weight={600}>
          Supply {formatFixed(shown.supplyV, 1)} V
        </Text>
        <Text x={70} y={52} colour="var(--muted)" size={13}>
          {shown.terminalV === null ? '' : `${formatFixed(shown.terminalV, 1)} V at terminals`}
        </Text>
      </Box>
      <Box x={312} y={326} width={160} height={84}>
        <Text x={56} y={22} size={13} colour="var(--muted)">
          meter, {reads?.unit ?? 'mA'}
        </Text>
        <Text x={58} y={58} size={24} weight={700} isFigure>
          {leads.in === 'blown'
            ? 'fuse'
            : reads === null
              ? '- - -'
              : formatFixed(reads.value, reads.unit === 'mA' ? 3 : 2)}
        </Text>
        <g role="radiogroup" aria-label="Jack of the meter">
          <Key
            x={116}
            y={1}
            width={44}
            name={leads.in === 'blown' ? 'Jack mA, with a new fuse' : 'Jack mA'}
            word="mA"
            radio
            isOn={leads.in === 'current'}
            onPress={onDo && (() => onDo({ do: 'jack', to: 'current' }))}
          />
          <Key
            x={116}
            y={43}
            width={44}
            name="Jack V"
            word="V"
            radio
            isOn={leads.in === 'voltage'}
            onPress={onDo && (() => onDo({ do: 'jack', to: 'voltage' }))}
          />
        </g>
      </Box>
      <Leads bench={bench} onDo={onDo} />
    </>
  );
}

export function Output({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { lesson } = bench;
  if (lesson.readBy === 'meniscus')
    return (
      <>
        <path d="M 600 248 V 404 H 372 V 386" {...LINE} strokeWidth={4} />
        <Meniscus x={350} y={196} value={bench.output ?? 0} unit={lesson.outputUnit} />
      </>
    );
  if (lesson.readBy === 'null meter') return <NullMeter bench={bench} onDo={onDo} />;
  if (lesson.outputUnit !== 'mA') return null;
  return <Loop bench={bench} onDo={onDo} />;
}
