/** The corridor on paper: the same points as on the screen, in ink alone, so that it prints in black and white. */
import { Line, Path, Rect, Svg, Text } from '@react-pdf/renderer';
import { corridorReach, type CorridorShape } from '@/ui/corridor-shape';
import { PAPER } from '@/ui/palette';
import { FIGURES } from '@/pdf/fonts';

const WIDTH = 500;
const HEIGHT = 122;
const LEFT = 46;
const BOTTOM = 16;
/** Room for half of the last word under the drawing. */
const RIGHT = 16;

export function CorridorDrawing({ shape }: { shape: CorridorShape }) {
  const { axis, asFound, asLeft, guard, adjustAbove: strip } = shape;
  const reach = corridorReach(shape);
  const x = (along: number) =>
    LEFT + 8 + ((along - axis.from) / (axis.to - axis.from)) * (WIDTH - LEFT - 8 - RIGHT);
  const y = (ofLimit: number) => ((reach - ofLimit) / (2 * reach)) * (HEIGHT - BOTTOM);
  const label = { fontFamily: FIGURES, fontSize: 7.5, fill: PAPER.muted };
  return (
    <Svg width={WIDTH} height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`}>
      <Rect x={LEFT} y={y(1)} width={WIDTH - LEFT} height={y(-1) - y(1)} fill="#e4e4e0" />
      <Rect x={LEFT} y={y(strip)} width={WIDTH - LEFT} height={y(-strip) - y(strip)} fill="#f4f4f1" />
      {[1, 0, -1].map((at) => (
        <Line
          key={at}
          x1={LEFT}
          x2={WIDTH}
          y1={y(at)}
          y2={y(at)}
          stroke={PAPER.ink}
          strokeWidth={at === 0 ? 0.4 : 1}
        />
      ))}
      {(
        [
          [1, '+limit'],
          [0, '0'],
          [-1, '−limit'],
        ] as const
      ).map(([at, word]) => (
        <Text key={word} x={LEFT - 6} y={y(at) + 2.5} textAnchor="end" style={label}>
          {word}
        </Text>
      ))}
      {axis.ticks.map(({ at, word }) => (
        <Text key={at} x={x(at)} y={HEIGHT - 4} textAnchor="middle" style={label}>
          {word}
        </Text>
      ))}
      <GuardBand guard={guard} x={x} y={y} />
      {[...asFound, ...asLeft].map((point, index) =>
        point.reach === null ? null : (
          <Line
            key={`bar ${index}`}
            x1={x(point.x)}
            x2={x(point.x)}
            y1={y(Math.min(reach, point.y + point.reach))}
            y2={y(Math.max(-reach, point.y - point.reach))}
            stroke={PAPER.ink}
            strokeWidth={0.7}
          />
        ),
      )}
      {(
        [
          [asFound, '#ffffff'],
          [asLeft, PAPER.ink],
        ] as const
      ).flatMap(([points, fill]) =>
        points.map((point, index) => (
          <Triangle
            key={`${fill} ${index}`}
            x={x(point.x)}
            y={y(point.y)}
            isUp={point.direction === 'up'}
            fill={fill}
          />
        )),
      )}
    </Svg>
  );
}

/** Inside of which a reading is accepted, on both sides. */
function GuardBand({
  guard,
  x,
  y,
}: Pick<CorridorShape, 'guard'> & { x: (along: number) => number; y: (ofLimit: number) => number }) {
  if (guard.length === 0) return null;
  const edge = (side: 1 | -1) =>
    [
      `M ${LEFT} ${y(side * (guard[0]?.accepted ?? 1))}`,
      ...guard.map((point) => `L ${x(point.x)} ${y(side * point.accepted)}`),
      `L ${WIDTH} ${y(side * (guard.at(-1)?.accepted ?? 1))}`,
    ].join(' ');
  return ([1, -1] as const).map((side) => (
    <Path key={side} d={edge(side)} fill="none" stroke={PAPER.ink} strokeWidth={0.8} strokeDasharray="2 2" />
  ));
}

function Triangle({ x, y, isUp, fill }: { x: number; y: number; isUp: boolean; fill: string }) {
  const size = 4;
  const tip = isUp ? -size : size;
  return (
    <Path
      d={`M ${x} ${y + tip} L ${x + size} ${y - tip} L ${x - size} ${y - tip} Z`}
      fill={fill}
      stroke={PAPER.ink}
      strokeWidth={0.9}
    />
  );
}
