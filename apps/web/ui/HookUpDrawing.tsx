'use client';
/** A hook-up as a line drawing: process at the left, body at the right, and each valve as it stands. */
import { HOOK_UPS, type Arrangement, type HookUpState, type Space, type ValveId } from '@barys/core';
import { useId } from 'react';

const WIDTH = 430;
const HEIGHT = 250;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly isUpright?: boolean;
  /** Where its name stands; to the right of an upright valve, else below. */
  readonly side?: 'left' | 'right' | 'below';
}

type Line = readonly [space: Space, path: string];

interface Plan {
  readonly valves: Readonly<Partial<Record<ValveId, Spot>>>;
  readonly lines: readonly Line[];
  readonly labels: readonly (readonly [x: number, y: number, text: string])[];
}

const HIGH = 80;
const LOW = 170;
const MIDDLE = 125;

const BLOCKS = { 'high-block': { x: 110, y: HIGH }, 'low-block': { x: 110, y: LOW } } as const;
const PROCESS_LINES: readonly Line[] = [
  ['process-high', `M 14 ${HIGH} H 110`],
  ['process-low', `M 14 ${LOW} H 110`],
];
const SIDES: readonly Line[] = [
  ['high', `M 110 ${HIGH} H 310`],
  ['low', `M 110 ${LOW} H 310`],
];
const TAPS = (low: string): Plan['labels'] => [
  [14, HIGH - 14, 'high side tap'],
  [14, LOW - 14, low],
];

const threeValves = (low: string): Plan => ({
  valves: {
    ...BLOCKS,
    equaliser: { x: 205, y: MIDDLE, isUpright: true },
    'vent-high': { x: 335, y: 34, isUpright: true, side: 'left' },
    'vent-low': { x: 335, y: 216, isUpright: true, side: 'left' },
  },
  lines: [
    ...PROCESS_LINES,
    ...SIDES,
    ['high', `M 205 ${HIGH} V ${MIDDLE} M 335 55 V 34`],
    ['low', `M 205 ${LOW} V ${MIDDLE} M 335 195 V 216`],
    ['atmosphere', 'M 335 34 V 12 M 335 216 V 240'],
  ],
  labels: TAPS(low),
});

const single = (process: string, away: string): Plan => ({
  valves: { block: { x: 110, y: MIDDLE }, bleed: { x: 205, y: 178, isUpright: true } },
  lines: [
    ['process-high', `M 14 ${MIDDLE} H 110`],
    ['high', `M 110 ${MIDDLE} H 310 M 205 ${MIDDLE} V 178`],
    ['atmosphere', 'M 205 178 V 222'],
  ],
  labels: [
    [14, MIDDLE - 14, process],
    [216, 222, away],
  ],
});

const PLANS: Readonly<Record<Arrangement, Plan>> = {
  'block-and-bleed': single('process', 'to a safe place'),
  '2-valve': single('process', 'test connection'),
  'tank-nozzle': single('tank nozzle', 'drain'),
  vacuum: single('vacuum system', 'air'),
  '3-valve': threeValves('low side tap'),
  'wet-leg': threeValves('wet leg, always full'),
  '5-valve': {
    valves: {
      ...BLOCKS,
      'equaliser-high': { x: 215, y: 103, isUpright: true, side: 'left' },
      'equaliser-low': { x: 215, y: 147, isUpright: true, side: 'left' },
      vent: { x: 258, y: MIDDLE },
    },
    lines: [
      ...PROCESS_LINES,
      ...SIDES,
      ['high', `M 215 ${HIGH} V 103`],
      ['low', `M 215 ${LOW} V 147`],
      ['middle', `M 215 103 V 147 M 215 ${MIDDLE} H 252`],
      ['atmosphere', `M 252 ${MIDDLE} H 288`],
    ],
    labels: TAPS('low side tap'),
  },
  'remote-seals': {
    valves: {
      ...BLOCKS,
      'vent-high': { x: 165, y: 46, isUpright: true },
      'vent-low': { x: 165, y: 204, isUpright: true },
    },
    lines: [
      ...PROCESS_LINES,
      ['high', `M 110 ${HIGH} H 215 M 165 ${HIGH} V 46`],
      ['low', `M 110 ${LOW} H 215 M 165 ${LOW} V 204`],
      ['atmosphere', 'M 165 46 V 18 M 165 204 V 232'],
    ],
    labels: [...TAPS('low side tap'), [226, HIGH - 12, 'capillary'], [226, LOW + 22, 'capillary']],
  },
};

/** The two triangles of a valve, tip to tip. */
const BOW = 'M -14 -9 L 14 9 L 14 -9 L -14 9 Z';

/** In words for those who do not see the drawing. */
const description = (arrangement: Arrangement, state: HookUpState): string => {
  const { name, valves } = HOOK_UPS[arrangement];
  return `${name}: ${valves.map(({ id, name: valve }) => `${valve.toLowerCase()} ${state.valves[id] ?? ''}`).join(', ')}`;
};

function Label({ spot, lines }: { spot: Spot; lines: readonly string[] }) {
  const side = spot.side ?? (spot.isUpright ? 'right' : 'below');
  const x = side === 'right' ? 25 : side === 'left' ? -25 : 0;
  return (
    <text
      y={side === 'below' ? 34 : -3}
      textAnchor={side === 'right' ? 'start' : side === 'left' ? 'end' : 'middle'}
      fontSize={11.5}
      fill="var(--ink)"
    >
      {lines.map((line, index) => (
        <tspan key={line} x={x} dy={index === 0 ? 0 : 13} fontWeight={index === 0 ? 400 : 700}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

export function HookUpDrawing({
  arrangement,
  state,
  tag,
  next,
  onValve,
}: {
  arrangement: Arrangement;
  state: HookUpState;
  tag: string;
  /** The valve that is usually moved now. */
  next: ValveId | null;
  /** A tap on a valve; the list beside the drawing has the same as buttons. */
  onValve?: (valve: ValveId) => void;
}) {
  const titleId = useId();
  const plan = PLANS[arrangement];
  const { valves } = HOOK_UPS[arrangement];
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-labelledby={titleId}
      style={{ width: '100%', maxHeight: 330, display: 'block' }}
    >
      <title id={titleId}>{description(arrangement, state)}</title>
      {plan.lines.map(([space, path]) => (
        <path
          key={`${space} ${path}`}
          d={path}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={state.pressurised.has(space) ? 5 : 1.5}
        />
      ))}
      {arrangement === 'remote-seals' && (
        <path
          d={`M 215 ${HIGH} C 260 ${HIGH} 260 105 310 105 M 215 ${LOW} C 260 ${LOW} 260 145 310 145`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
          strokeDasharray="5 4"
        />
      )}
      <rect x={310} y={55} width={100} height={140} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      <text x={360} y={MIDDLE + 5} textAnchor="middle" fontSize={15} fontWeight={700} fill="var(--ink)">
        {tag}
      </text>
      {plan.labels.map(([x, y, text]) => (
        <text key={`${x} ${y}`} x={x} y={y} fontSize={12.5} fill="var(--muted)">
          {text}
        </text>
      ))}
      {valves.map(({ id, name }) => {
        const spot = plan.valves[id];
        if (spot === undefined) return null;
        const isOpen = state.valves[id] === 'open';
        return (
          <g
            key={id}
            transform={`translate(${spot.x} ${spot.y})`}
            onClick={() => onValve?.(id)}
            style={{ cursor: onValve === undefined ? 'default' : 'pointer' }}
          >
            <rect x={-24} y={-22} width={48} height={44} fill="transparent" />
            {id === next && <circle r={20} fill="var(--wash)" stroke="var(--now)" strokeWidth={2.5} />}
            <path
              d={BOW}
              transform={spot.isUpright ? 'rotate(90)' : undefined}
              fill={isOpen ? 'var(--sheet)' : 'var(--ink)'}
              stroke="var(--ink)"
              strokeWidth={2}
            />
            <Label spot={spot} lines={[name, isOpen ? 'open' : 'closed']} />
            <title>{`${name}: ${isOpen ? 'open' : 'closed'}`}</title>
          </g>
        );
      })}
    </svg>
  );
}
