'use client';
import { ARRANGEMENTS, type LevelMeasurement } from '@barys/core/level';
import Box from '@mui/material/Box';
import { useId, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { FIGURES } from '@/ui/theme';
import { BODY, HEIGHT, heightAt, layoutOf, PORTS, TANK, WIDTH, type Layout, type Round } from './layout';

interface Words {
  /** What the transmitter is called. */
  readonly tag: string;
  readonly height: (metres: number) => string;
  /** A dimension, with no more digits than it has. */
  readonly dimension: (metres: number) => string;
  readonly unit: string;
}

const words = { fontSize: 15, fill: 'var(--ink)' } as const;
const figures = { ...words, fontFamily: FIGURES } as const;

/** The vessel with what is in it, the lines, and the transmitter; the level can be taken hold of. */
export function LevelDrawing({
  measurement,
  levelM,
  onLevel,
  round = null,
  ...said
}: Words & {
  measurement: LevelMeasurement;
  /** What it stands in, where that has no upright walls. */
  round?: Round | null;
  levelM: number;
  /** Where the level can be taken hold of. */
  onLevel?: (metres: number) => void;
}) {
  const titleId = useId();
  const layout = layoutOf(measurement, round);
  const { name } = ARRANGEMENTS[measurement.arrangement];
  return (
    <Box
      component="svg"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role={onLevel === undefined ? 'img' : 'group'}
      aria-labelledby={titleId}
      sx={{ width: '100%', maxHeight: 470, display: 'block' }}
    >
      <title id={titleId}>
        {`${name}, level ${said.height(levelM)} ${said.unit} above the lower tap, transmitter ${said.dimension(Math.abs(measurement.dropM))} ${said.unit} ${measurement.dropM < 0 ? 'above' : 'below'} it`}
      </title>
      <Contents measurement={measurement} layout={layout} levelM={levelM} />
      <Lines measurement={measurement} layout={layout} />
      <Transmitter measurement={measurement} layout={layout} tag={said.tag} />
      <Dimensions measurement={measurement} layout={layout} {...said} />
      {onLevel !== undefined && (
        <LevelHandle measurement={measurement} layout={layout} levelM={levelM} onLevel={onLevel} {...said} />
      )}
    </Box>
  );
}

type Part = { measurement: LevelMeasurement; layout: Layout };

function Contents({ measurement, layout, levelM }: Part & { levelM: number }) {
  const { tankTop, tankBottom, isClosed, circle, y } = layout;
  const clipId = useId();
  const surface = Math.min(tankBottom, Math.max(tankTop, y(levelM)));
  const isInterface = measurement.arrangement === 'interface';
  const [left, width] =
    circle === null ? [TANK.left, TANK.right - TANK.left] : [TANK.middle - circle.r, 2 * circle.r];
  const outline = { fill: 'none', stroke: 'var(--ink)', strokeWidth: 2.5 };
  return (
    <>
      {circle !== null && (
        <clipPath id={clipId}>
          <circle cx={TANK.middle} {...circle} />
        </clipPath>
      )}
      <g clipPath={circle === null ? undefined : `url(#${clipId})`}>
        {isInterface && (
          <rect x={left} y={tankTop} width={width} height={surface - tankTop} fill="var(--paper)" />
        )}
        <rect x={left} y={surface} width={width} height={tankBottom - surface} fill="var(--liquid)" />
      </g>
      {circle === null ? (
        <path
          d={
            isClosed
              ? `M ${TANK.left} ${tankTop + 14} q 0 -14 14 -14 h ${width - 28} q 14 0 14 14 V ${tankBottom - 8} q 0 8 -8 8 H ${TANK.left + 8} q -8 0 -8 -8 Z`
              : `M ${TANK.left} ${tankTop} V ${tankBottom - 8} q 0 8 8 8 H ${TANK.right - 8} q 8 0 8 -8 V ${tankTop}`
          }
          {...outline}
        />
      ) : (
        <circle cx={TANK.middle} {...circle} {...outline} />
      )}
    </>
  );
}

/** What fills a line decides how it is drawn: full, of another liquid, or with gas alone. */
const LINE = {
  liquid: { stroke: 'var(--ink)', strokeWidth: 4 },
  fill: { stroke: 'var(--muted)', strokeWidth: 4 },
  gas: { stroke: 'var(--ink)', strokeWidth: 1.5, strokeDasharray: '5 4' },
} as const;

function Lines({ measurement, layout }: Part) {
  const { leg, line } = ARRANGEMENTS[measurement.arrangement];
  const { y, bodyTop } = layout;
  const tap = y(0);
  const isTube = measurement.arrangement === 'bubbler';
  const isPipe = measurement.arrangement === 'standpipe';
  const start = isTube
    ? `M ${TANK.middle} ${tap} V 30`
    : isPipe
      ? `M ${TANK.middle} ${layout.tankBottom}`
      : `M ${layout.wall(tap)[1]} ${tap}`;
  const toBody = isTube
    ? `${start} H ${PORTS.tap} V ${bodyTop}`
    : isPipe
      ? `${start} V ${bodyTop - 10} H ${PORTS.tap} V ${bodyTop}`
      : `${start} H ${PORTS.tap} V ${bodyTop}`;
  const upper = y(measurement.tapsM ?? 0);
  return (
    <>
      <path d={toBody} fill="none" {...LINE[line]} />
      {leg !== null && (
        <path
          d={`M ${layout.wall(upper)[1]} ${upper} H ${PORTS.other} V ${bodyTop}`}
          fill="none"
          {...LINE[leg === 'fill' ? 'fill' : 'gas']}
        />
      )}
      {measurement.arrangement === 'wet-leg' && (
        <circle cx={PORTS.other} cy={upper} r={10} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      )}
      {line === 'fill' && <Seal x={layout.wall(tap)[1]} y={tap} />}
      {measurement.arrangement === 'two-seals' && <Seal x={layout.wall(upper)[1]} y={upper} />}
      {layout.isBroken && <Break x={isPipe ? TANK.middle : PORTS.tap} y={(tap + bodyTop) / 2 + 8} />}
      {layout.isBroken && layout.isClosed && <Break x={PORTS.other} y={(tap + bodyTop) / 2 + 8} />}
    </>
  );
}

const Seal = ({ x, y }: { x: number; y: number }) => (
  <rect x={x} y={y - 12} width={8} height={24} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
);

/** The line goes on further than the drawing: two strokes across it. */
const Break = ({ x, y }: { x: number; y: number }) => (
  <g>
    <rect x={x - 9} y={y - 5} width={18} height={10} fill="var(--sheet)" />
    <path
      d={`M ${x - 9} ${y - 2} l 18 -6 M ${x - 9} ${y + 8} l 18 -6`}
      stroke="var(--ink)"
      strokeWidth={1.5}
    />
  </g>
);

function Transmitter({ measurement, layout, tag }: Part & { tag: string }) {
  const { bodyTop } = layout;
  const isTapHigh = measurement.highSide === 'lower tap';
  const isPipe = measurement.arrangement === 'standpipe';
  return (
    <>
      <rect
        x={BODY.left}
        y={bodyTop}
        width={BODY.right - BODY.left}
        height={BODY.height}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <text
        x={BODY.middle}
        y={bodyTop + 27}
        textAnchor="middle"
        fontSize={15}
        fontWeight={700}
        fill="var(--ink)"
      >
        {tag}
      </text>
      <text
        x={PORTS.tap + (isPipe ? 8 : -8)}
        y={bodyTop - 6}
        textAnchor={isPipe ? 'start' : 'end'}
        {...words}
      >
        {isTapHigh ? 'H' : 'L'}
      </text>
      <text x={PORTS.other + 8} y={bodyTop - 6} {...words}>
        {layout.isClosed ? (isTapHigh ? 'L' : 'H') : isPipe ? '' : 'open'}
      </text>
    </>
  );
}

function Dimensions({ measurement, layout, dimension, unit }: Part & Words) {
  const { y, bodyTop } = layout;
  const { dropM, fullM, zeroM, tapsM } = measurement;
  const top = layout.isClosed ? (tapsM ?? fullM) : fullM;
  const hasDrop = measurement.arrangement !== 'bubbler' && Math.abs(bodyTop - y(0)) > 18;
  return (
    <>
      <Measure x={22} from={y(0)} to={y(top)} text={`${dimension(top)} ${unit}`} side="left" />
      {[
        [zeroM, '0 %'],
        [fullM, '100 %'],
      ].map(([at, word]) => (
        <g key={word}>
          <line
            x1={TANK.left - 8}
            x2={layout.wall(y(Number(at)))[0]}
            y1={y(Number(at))}
            y2={y(Number(at))}
            stroke="var(--ink)"
            strokeWidth={2}
          />
          <text x={TANK.left - 12} y={y(Number(at)) + 4} textAnchor="end" {...words}>
            {word}
          </text>
        </g>
      ))}
      {hasDrop && (
        <Measure
          x={376}
          from={y(0)}
          to={bodyTop}
          text={`${dimension(Math.abs(dropM))} ${unit}`}
          side="right"
        />
      )}
    </>
  );
}

function Measure({
  x,
  from,
  to,
  text,
  side,
}: {
  x: number;
  from: number;
  to: number;
  text: string;
  side: 'left' | 'right';
}) {
  const middle = (from + to) / 2;
  return (
    <>
      <path
        d={`M ${x} ${from} V ${to} M ${x - 5} ${from} h 10 M ${x - 5} ${to} h 10`}
        stroke="var(--muted)"
        strokeWidth={1}
        fill="none"
      />
      <text
        transform={`translate(${side === 'left' ? x - 10 : x + 16} ${middle}) rotate(-90)`}
        textAnchor="middle"
        {...figures}
      >
        {text}
      </text>
    </>
  );
}

function LevelHandle({
  measurement,
  layout,
  levelM,
  onLevel,
  height,
  unit,
}: Part & Words & { levelM: number; onLevel: (metres: number) => void }) {
  const isHeld = useRef(false);
  const at = layout.y(levelM);
  const [left, right] = layout.wall(at);
  const highest = Math.max(layout.isClosed ? (measurement.tapsM ?? 0) : 0, measurement.fullM);
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!isHeld.current) return;
    const drawing = event.currentTarget.ownerSVGElement;
    const matrix = drawing?.getScreenCTM();
    if (drawing === null || matrix == null) return;
    const { y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    onLevel(heightAt(layout, measurement, y));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    onLevel(Math.min(highest, Math.max(0, levelM + (by * highest) / 100)));
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Level"
      aria-valuenow={levelM}
      aria-valuemin={0}
      aria-valuemax={highest}
      aria-valuetext={`${height(levelM)} ${unit}`}
      onPointerDown={(event) => {
        isHeld.current = true;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onPointerUp={() => (isHeld.current = false)}
      onKeyDown={onKeyDown}
      style={{ cursor: 'ns-resize', touchAction: 'none' }}
    >
      <rect
        x={TANK.left - 26}
        y={at - 24}
        width={TANK.right - TANK.left + 26}
        height={48}
        fill="transparent"
      />
      <line x1={left} x2={right} y1={at} y2={at} stroke="var(--now)" strokeWidth={3} />
      <rect x={TANK.left - 22} y={at - 10} width={20} height={20} fill="var(--now)" />
      <text x={TANK.left + 10} y={at - 8} {...figures} fontWeight={700}>
        {`${height(levelM)} ${unit}`}
      </text>
    </g>
  );
}
