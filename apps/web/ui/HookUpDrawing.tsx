'use client';
/** A hook-up as a line drawing: process at the left, body at the right, and each valve as it stands. */
import { HOOK_UPS, type Arrangement, type HookUpState, type Space, type ValveId } from '@barys/core/hookup';
import Box from '@mui/material/Box';
import { useId } from 'react';

const WIDTH = 430;
const HEIGHT = 250;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly isUpright?: boolean;
  /** Where its name stands; to the right of an upright valve, else below. */
  readonly side?: 'left' | 'right' | 'above' | 'below';
}

type Line = readonly [space: Space, path: string];

interface Plan {
  readonly valves: Readonly<Partial<Record<ValveId, Spot>>>;
  readonly lines: readonly Line[];
  readonly labels: readonly (readonly [x: number, y: number, text: string])[];
}

const HIGH = 68;
const LOW = 182;
const MIDDLE = 125;

const BLOCKS = {
  'high-block': { x: 130, y: HIGH, side: 'above' },
  'low-block': { x: 130, y: LOW, side: 'below' },
} as const;

/** The body: its left edge, top, width and height. */
const BODY = { x: 330, y: 48, width: 92, height: 154 };
const BODY_MIDDLE = BODY.x + BODY.width / 2;
const PROCESS_LINES: readonly Line[] = [
  ['process-high', `M 14 ${HIGH} H 130`],
  ['process-low', `M 14 ${LOW} H 130`],
];
const SIDES: readonly Line[] = [
  ['high', `M 130 ${HIGH} H ${BODY.x}`],
  ['low', `M 130 ${LOW} H ${BODY.x}`],
];
const TAPS = (low: string): Plan['labels'] => [
  [14, HIGH - 10, 'high side tap'],
  [14, LOW + 16, low],
];

/** The word at the leg, which also says when its fill was let go. */
const LEG = 'wet leg';

const threeValves = (low: string): Plan => ({
  valves: {
    ...BLOCKS,
    equaliser: { x: 225, y: MIDDLE, isUpright: true },
    'vent-high': { x: BODY_MIDDLE, y: 26, isUpright: true, side: 'left' },
    'vent-low': { x: BODY_MIDDLE, y: 224, isUpright: true, side: 'left' },
  },
  lines: [
    ...PROCESS_LINES,
    ...SIDES,
    ['high', `M 225 ${HIGH} V ${MIDDLE} M ${BODY_MIDDLE} 48 V 26`],
    ['low', `M 225 ${LOW} V ${MIDDLE} M ${BODY_MIDDLE} 202 V 224`],
    ['atmosphere', `M ${BODY_MIDDLE} 26 V 4 M ${BODY_MIDDLE} 224 V 247`],
  ],
  labels: TAPS(low),
});

const single = (process: string, away: string): Plan => ({
  valves: {
    block: { x: 130, y: MIDDLE, side: 'above' },
    bleed: { x: 225, y: 178, isUpright: true, side: 'left' },
  },
  lines: [
    ['process-high', `M 14 ${MIDDLE} H 130`],
    ['high', `M 130 ${MIDDLE} H ${BODY.x} M 225 ${MIDDLE} V 178`],
    ['atmosphere', 'M 225 178 V 226'],
  ],
  labels: [
    [14, MIDDLE + 24, process],
    [236, 226, away],
  ],
});

const PLANS: Readonly<Record<Arrangement, Plan>> = {
  'block-and-bleed': single('process', 'to a safe place'),
  '2-valve': single('process', 'test connection'),
  'tank-nozzle': single('tank nozzle', 'drain'),
  vacuum: single('vacuum system', 'air'),
  '3-valve': threeValves('low side tap'),
  'wet-leg': threeValves(LEG),
  '5-valve': {
    valves: {
      ...BLOCKS,
      'equaliser-high': { x: 225, y: 101, isUpright: true, side: 'left' },
      'equaliser-low': { x: 225, y: 149, isUpright: true, side: 'left' },
      vent: { x: 281, y: MIDDLE, side: 'below' },
    },
    lines: [
      ...PROCESS_LINES,
      ...SIDES,
      ['high', `M 225 ${HIGH} V 101`],
      ['low', `M 225 ${LOW} V 149`],
      ['middle', `M 225 101 V 149 M 225 ${MIDDLE} H 281`],
      ['atmosphere', `M 281 ${MIDDLE} H 318`],
    ],
    labels: TAPS('low side tap'),
  },
  'remote-seals': {
    valves: {
      ...BLOCKS,
      'vent-high': { x: 205, y: 36, isUpright: true },
      'vent-low': { x: 205, y: 214, isUpright: true },
    },
    lines: [
      ...PROCESS_LINES,
      ['high', `M 130 ${HIGH} H 240 M 205 ${HIGH} V 36`],
      ['low', `M 130 ${LOW} H 240 M 205 ${LOW} V 214`],
      ['atmosphere', 'M 205 36 V 8 M 205 214 V 242'],
    ],
    labels: [...TAPS('low side tap'), [238, MIDDLE + 4, 'capillaries']],
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
      y={side === 'below' ? 33 : side === 'above' ? -40 : 1}
      textAnchor={side === 'right' ? 'start' : side === 'left' ? 'end' : 'middle'}
      fontSize="var(--valve-name)"
      fill="var(--ink)"
    >
      {lines.map((line, index) => (
        <tspan key={line} x={x} dy={index === 0 ? 0 : '1.13em'} fontWeight={index === 0 ? 400 : 700}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

function Valve({
  spot,
  name,
  isOpen,
  isNext,
  onTap,
}: {
  spot: Spot;
  name: string;
  isOpen: boolean;
  /** Usually moved now. */
  isNext: boolean;
  onTap: (() => void) | undefined;
}) {
  return (
    <g
      transform={`translate(${spot.x} ${spot.y})`}
      onClick={onTap}
      style={{ cursor: onTap === undefined ? 'default' : 'pointer' }}
    >
      <rect x={-24} y={-22} width={48} height={44} fill="transparent" />
      {isNext && <circle r={20} fill="var(--wash)" stroke="var(--now)" strokeWidth={2.5} />}
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
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-labelledby={titleId}
      // A phone shows the drawing small: its words take more of it there.
      sx={{ width: '100%', maxHeight: 330, display: 'block', '--valve-name': { xs: '15px', sm: '12px' } }}
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
          d={`M 240 ${HIGH} C 285 ${HIGH} 285 108 ${BODY.x} 108 M 240 ${LOW} C 285 ${LOW} 285 142 ${BODY.x} 142`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
          strokeDasharray="5 4"
        />
      )}
      <rect {...BODY} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      <text
        x={BODY_MIDDLE}
        y={MIDDLE + 5}
        textAnchor="middle"
        fontSize={15}
        fontWeight={700}
        fill="var(--ink)"
      >
        {tag}
      </text>
      {plan.labels.map(([x, y, text]) => (
        <text key={`${x} ${y}`} x={x} y={y} fontSize="var(--valve-name)" fill="var(--muted)">
          {text === LEG && state.isLegLost ? `${LEG}, run out` : text}
        </text>
      ))}
      {valves.map(({ id, name }) => {
        const spot = plan.valves[id];
        return (
          spot && (
            <Valve
              key={id}
              spot={spot}
              name={name}
              isOpen={state.valves[id] === 'open'}
              isNext={id === next}
              onTap={onValve && (() => onValve(id))}
            />
          )
        );
      })}
    </Box>
  );
}
