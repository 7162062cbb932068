/** How the test gear is connected, drawn from what the instrument is: boxes, the pressure line thick, wires thin. */
import { useId } from 'react';

export const CONNECTION_KINDS = ['loop', 'voltage', 'pneumatic', 'gauge', 'vacuum'] as const;
export type ConnectionKind = (typeof CONNECTION_KINDS)[number];

interface Box {
  readonly x: number;
  readonly y: number;
  readonly lines: readonly string[];
}

interface Plan {
  readonly boxes: readonly Box[];
  readonly pressure: string;
  readonly wires: string;
  readonly says: string;
}

const WIDTH = 104;
const HEIGHT = 40;

/** Source, standard and instrument on one line, which every kind but vacuum has. */
const bench = (tag: string, source: string, standard: string): Pick<Plan, 'boxes' | 'pressure'> => ({
  boxes: [
    { x: 0, y: 92, lines: [source] },
    { x: 134, y: 158, lines: standard === '' ? ['standard'] : ['standard', standard] },
    { x: 268, y: 92, lines: [tag, 'high side'] },
  ],
  pressure: 'M 104 112 H 268 M 186 112 V 158',
});

function planOf(
  kind: ConnectionKind,
  { tag, standard, isSmart, isDifferential, goesBelow, isOddSupply }: Shown,
): Plan {
  const supply = isOddSupply ? ['supply', 'as on nameplate'] : ['supply', '24 V'];
  const open = `${isDifferential ? '; the low side is open to the air' : ''}${goesBelow ? (isDifferential ? '; for points below zero vacuum on the high side, or pressure on the low side' : '; for points below zero vacuum') : ''}`;
  const pump = bench(tag, goesBelow ? 'pump, vacuum' : 'pump', standard);
  switch (kind) {
    case 'loop':
      return {
        boxes: [
          ...pump.boxes,
          { x: 0, y: 8, lines: supply },
          { x: 134, y: 8, lines: isSmart ? ['resistor', '250 Ω'] : ['no resistor', 'needed'] },
          { x: 268, y: 8, lines: ['meter', 'mA, in series'] },
        ],
        pressure: pump.pressure,
        wires: 'M 104 28 H 134 M 238 28 H 268 M 320 48 V 92 M 296 92 V 74 H 52 V 48',
        says: `two-wire loop of supply, ${isSmart ? 'at least 250 ohms, ' : ''}meter in series and ${tag}, or the meter across its test terminals; pump, standard and high side on one line${open}`,
      };
    case 'voltage':
      return {
        boxes: [
          ...pump.boxes,
          { x: 0, y: 8, lines: supply },
          { x: 134, y: 8, lines: ['resistor or', 'output terminals'] },
          { x: 268, y: 8, lines: ['voltmeter', 'across it'] },
        ],
        pressure: pump.pressure,
        wires:
          'M 104 28 H 134 M 238 20 H 268 M 238 36 H 268 M 186 48 V 74 H 320 V 92 M 296 92 V 82 H 52 V 48',
        says: `supply and ${tag}; the voltmeter across the output or across the 250 ohm resistor in the loop; pump, standard and high side on one line${open}`,
      };
    case 'pneumatic':
      return {
        boxes: [
          ...pump.boxes,
          { x: 0, y: 8, lines: ['air supply', '1.4 bar, 20 psi'] },
          { x: 268, y: 8, lines: ['output gauge', 'no leaks'] },
        ],
        pressure: `${pump.pressure} M 104 28 H 150 V 74 H 296 V 92 M 344 92 V 48`,
        wires: '',
        says: `air supply and output gauge on ${tag}, both free of leaks; pump, standard and high side on one line${open}`,
      };
    case 'gauge':
      return {
        boxes: pump.boxes.map((box, index) => (index === 2 ? { ...box, lines: [tag, 'same height'] } : box)),
        pressure: pump.pressure,
        wires: '',
        says: `pump, standard and ${tag} on one line, side by side at one height`,
      };
    case 'vacuum':
      return {
        boxes: [
          { x: 0, y: 92, lines: ['vacuum pump'] },
          { x: 134, y: 158, lines: standard === '' ? ['standard'] : ['standard', standard] },
          { x: 134, y: 8, lines: ['fine leak valve', 'and air'] },
          { x: 268, y: 92, lines: [tag] },
        ],
        pressure: 'M 104 112 H 268 M 186 112 V 158 M 186 48 V 112',
        wires: '',
        says: `pump, fine leak valve, standard and ${tag} on one clean dry chamber, ${tag} at its working position`,
      };
  }
}

interface Shown {
  readonly tag: string;
  /** Tag of the standard, or nothing before one is chosen. */
  readonly standard: string;
  readonly isSmart: boolean;
  readonly isDifferential: boolean;
  /** Whether points lie below the pressure of the air. */
  readonly goesBelow: boolean;
  /** Whether the supply is another one than the usual 24 V. */
  readonly isOddSupply: boolean;
}

export function ConnectionDrawing({ kind, ...shown }: Shown & { kind: ConnectionKind }) {
  const titleId = useId();
  const { boxes, pressure, wires, says } = planOf(kind, shown);
  return (
    <figure style={{ margin: 0 }}>
      <svg
        viewBox="-4 0 382 204"
        role="img"
        aria-labelledby={titleId}
        style={{ width: '100%', maxHeight: 220 }}
      >
        <title id={titleId}>{`Connect: ${says}`}</title>
        <path d={pressure} fill="none" stroke="var(--ink)" strokeWidth={5} />
        <path d={wires} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
        {boxes.map(({ x, y, lines }) => (
          <g key={`${x} ${y}`}>
            <rect
              x={x}
              y={y}
              width={WIDTH}
              height={HEIGHT}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={1.8}
            />
            <text textAnchor="middle" fontSize={12.5} fill="var(--ink)" fontWeight={600}>
              {lines.map((line, index) => (
                <tspan
                  key={line}
                  x={x + WIDTH / 2}
                  y={y + (lines.length === 1 ? 24 : 17) + index * 15}
                  fontWeight={index === 0 ? 700 : 400}
                >
                  {line}
                </tspan>
              ))}
            </text>
          </g>
        ))}
      </svg>
      <figcaption
        style={{ fontSize: 14, color: 'var(--muted)' }}
      >{`${says.charAt(0).toUpperCase()}${says.slice(1)}.`}</figcaption>
    </figure>
  );
}
