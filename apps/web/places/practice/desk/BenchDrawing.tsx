'use client';
/** The bench: what makes the pressure, the reference, the instrument with its controls, the meter. It is its own control. */
import type { Act, PracticeBench } from '@barys/rig/practice';
import { formatFixed, formatSigned } from '@barys/core/text';
import type { ReactNode } from 'react';
import { Scroller } from '@/ui/Scroller';
import { Knob } from './Knob';

type Do = ((act: Act) => void) | null;

/** Turns of a control so far, from what was done. */
function turnedOf(bench: PracticeBench, is: (act: Act) => number | null): number {
  return bench.done.reduce((sum, { act }) => sum + (is(act) ?? 0), 0);
}

const openOf = (bench: PracticeBench): number =>
  bench.done.reduce((open, { act }) => (act.do === 'vent' ? act.open : open), 0);

function Box({
  x,
  y,
  width,
  height,
  children,
}: {
  x: number;
  y: number;
  width: number;
  height: number;
  children: ReactNode;
}) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect width={width} height={height} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2.5} />
      {children}
    </g>
  );
}

function Text({
  x,
  y,
  size = 14,
  weight = 400,
  isFigure = false,
  colour = 'var(--ink)',
  children,
}: {
  x: number;
  y: number;
  size?: number;
  weight?: number;
  isFigure?: boolean;
  colour?: string;
  children: ReactNode;
}) {
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      fontSize={size}
      fontWeight={weight}
      fill={colour}
      fontFamily={isFigure ? 'Atkinson Hyperlegible Mono Variable, monospace' : undefined}
    >
      {children}
    </text>
  );
}

function Pump({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const fine = turnedOf(bench, (act) => (act.do === 'fine' ? act.turns : null));
  const open = openOf(bench);
  return (
    <>
      <Knob
        x={44}
        y={262}
        name="Vent"
        turned={open / 4}
        shown={open === 0 ? 'shut' : open === 1 ? 'open' : `${formatFixed(open * 100, 0)} %`}
        most={[0, 0.25]}
        onTurn={onDo && ((turns) => onDo({ do: 'vent', open: Math.min(1, Math.max(0, open + turns * 4)) }))}
      />
      <g
        role="button"
        tabIndex={onDo === null ? undefined : 0}
        aria-label="Pump, one stroke"
        style={{ cursor: onDo === null ? 'default' : 'pointer' }}
        onClick={() => onDo?.({ do: 'stroke' })}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onDo?.({ do: 'stroke' });
        }}
      >
        <rect x={110} y={222} width={64} height={14} fill="var(--ink)" />
        <rect
          x={130}
          y={236}
          width={24}
          height={64}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={2.5}
        />
        <rect
          x={92}
          y={300}
          width={100}
          height={84}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={2.5}
        />
        <Text x={142} y={347} weight={600}>
          Pump
        </Text>
      </g>
      <Knob
        x={258}
        y={240}
        name="Fine"
        turned={fine}
        shown={`${formatSigned(fine, 2)} turns`}
        most={[-15, 15]}
        onTurn={onDo && ((turns) => onDo({ do: 'fine', turns }))}
      />
    </>
  );
}

function Screws({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { kind } = bench.world.tested;
  const of = (screw: 'zero' | 'span') =>
    turnedOf(bench, (act) => (act.do === 'turn' && act.screw === screw ? act.turns : null));
  return (['zero', 'span'] as const).map((screw, i) => (
    <Knob
      key={screw}
      x={66 + i * 116}
      y={84}
      name={screw === 'zero' ? 'Zero' : kind === 'force balance' ? 'Range wheel' : 'Span'}
      turned={of(screw)}
      shown={`${formatSigned(of(screw), 2)} turns`}
      most={null}
      onTurn={onDo && ((turns) => onDo({ do: 'turn', screw, turns }))}
    />
  ));
}

const KIND: Readonly<Record<string, string>> = {
  'analog transmitter': 'Analog transmitter',
  'force balance': 'Pneumatic balance',
  'smart transmitter': 'Smart transmitter',
  'digital gauge': 'Digital gauge',
};

function Instrument({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { lesson, shown, world } = bench;
  const { kind } = world.tested;
  const { lrv, urv } = lesson.range;
  return (
    <Box x={430} y={36} width={250} height={168}>
      <rect width={250} height={28} fill="var(--ink)" />
      <text x={12} y={19} fontSize={14} fontWeight={600} fill="var(--sheet)">
        {KIND[kind] ?? kind}, {lrv} … {urv} {lesson.unit}
      </text>
      {(kind === 'analog transmitter' || kind === 'force balance') && <Screws bench={bench} onDo={onDo} />}
      {kind === 'smart transmitter' && (
        <>
          <Text x={125} y={62} colour="var(--muted)">
            digital value, {lesson.unit}
          </Text>
          <Text x={125} y={104} size={30} weight={700} isFigure>
            {formatFixed(shown.digital ?? 0, 3)}
          </Text>
          <Text x={125} y={144} colour="var(--muted)">
            told by the communicator, below
          </Text>
        </>
      )}
      {kind === 'digital gauge' && (
        <>
          <Text x={125} y={62} colour="var(--muted)">
            shows, {lesson.unit}
          </Text>
          <Text x={125} y={104} size={30} weight={700} isFigure>
            {formatFixed(shown.own ?? 0, 2)}
          </Text>
        </>
      )}
    </Box>
  );
}

/** What reads the output: a meter in the loop, or a standard for a signal of air. */
function Meter({ bench }: { bench: PracticeBench }) {
  const { kind } = bench.world.tested;
  const { shown } = bench;
  if (kind === 'digital gauge') return null;
  const isAir = kind === 'force balance';
  const [receiver] = shown.receivers;
  return (
    <>
      <path
        d={isAir ? 'M 590 204 V 300' : 'M 520 204 V 300 M 640 204 V 300'}
        stroke="var(--ink)"
        strokeWidth={isAir ? 5 : 2}
        fill="none"
      />
      <Box x={470} y={300} width={210} height={84}>
        <Text x={105} y={24} colour="var(--muted)">
          {isAir ? 'standard, psi' : 'meter, mA in series'}
        </Text>
        <Text x={105} y={62} size={30} weight={700} isFigure>
          {formatFixed(isAir ? (shown.own ?? 0) : (shown.meter ?? 0), 3)}
        </Text>
      </Box>
      {kind === 'smart transmitter' && receiver !== undefined && (
        <Box x={310} y={300} width={130} height={84}>
          <Text x={65} y={24} colour="var(--muted)">
            panel, %
          </Text>
          <Text x={65} y={60} size={24} weight={700} isFigure>
            {formatFixed(receiver, 1)}
          </Text>
        </Box>
      )}
    </>
  );
}

/** Narrower than this its words could not be read; a phone scrolls it. */
const LEAST_PX = 560;

/** @param onDo null in a replay, which shows and lets nothing be turned */
export function BenchDrawing({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { shown, lesson, world } = bench;
  const isPump = world.source.kind === 'pump';
  return (
    <Scroller label="Drawing of the bench">
      <svg
        viewBox="0 0 700 400"
        width="100%"
        role="group"
        aria-label="The bench"
        style={{ display: 'block', minWidth: LEAST_PX }}
      >
        <path
          d={isPump ? 'M 192 372 H 340 V 170 H 430' : 'M 190 340 H 270 V 170 H 430'}
          stroke="var(--ink)"
          strokeWidth={6}
          fill="none"
        />
        {isPump ? (
          <Pump bench={bench} onDo={onDo} />
        ) : (
          <Box x={30} y={290} width={160} height={94}>
            <Text x={80} y={28} weight={600}>
              Controller
            </Text>
            <Text x={80} y={56} colour="var(--muted)">
              {shown.isStable ? 'stands' : 'on its way'}
            </Text>
          </Box>
        )}
        <Box x={236} y={66} width={164} height={100}>
          <Text x={82} y={26} colour="var(--muted)">
            reference, {lesson.unit}
          </Text>
          <Text x={82} y={64} size={30} weight={700} isFigure>
            {formatFixed(shown.reference, 3)}
          </Text>
        </Box>
        <Instrument bench={bench} onDo={onDo} />
        <Meter bench={bench} />
      </svg>
    </Scroller>
  );
}
