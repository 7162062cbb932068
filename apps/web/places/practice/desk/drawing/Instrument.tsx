'use client';
/** The instrument with its real controls: screws, a menu of two keys and a wheel, a needle to be tapped, a display. */
import { PRESSURE_UNITS } from '@barys/core/units';
import { formatFixed, formatSigned } from '@barys/core/text';
import { menuLines, type PracticeBench } from '@barys/rig/practice';
import { useRef } from 'react';
import { Knob } from './Knob';
import { Box, Key, Text, type Do } from './parts';
import { DialFace } from './Scales';
import { turnedOf } from './turned';

const WIDTH = 280;

const KIND: Readonly<Record<PracticeBench['world']['tested']['kind'], string>> = {
  'analog transmitter': 'Analog transmitter',
  'force balance': 'Pneumatic balance',
  'smart transmitter': 'Smart transmitter',
  'digital gauge': 'Digital gauge',
  'dial gauge': 'Dial gauge',
  'level gauge': 'Level gauge',
  'heat-loss gauge': 'Heat-loss gauge',
  'capacitance gauge': 'Capacitance gauge',
};

function Screws({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { kind } = bench.world.tested;
  const of = (screw: 'zero' | 'span') =>
    turnedOf(bench, (act) => (act.do === 'turn' && act.screw === screw ? act.turns : null));
  return (['zero', 'span'] as const).map((screw, i) => (
    <Knob
      key={screw}
      x={78 + i * 124}
      y={106}
      name={screw === 'zero' ? 'Zero' : kind === 'force balance' ? 'Range wheel' : 'Span'}
      turned={of(screw)}
      shown={`${formatSigned(of(screw), 2)} turns`}
      most={null}
      onTurn={onDo && ((turns) => onDo({ do: 'turn', screw, turns }))}
    />
  ));
}

/** What a smart transmitter shows of itself: its start view, or its menu while that is open. */
function Display({ bench }: { bench: PracticeBench }) {
  const { menued, menu, shown, lesson, face } = bench;
  if (menued === null || bench.exchange?.isDead === true)
    return (
      <Text x={WIDTH / 2} y={84} colour="var(--muted)">
        no supply
      </Text>
    );
  const lines = menuLines(menu, menued);
  if (lines.length > 0)
    return lines.map(({ word, value, isInHand }, place) => (
      <g key={word} transform={`translate(0 ${44 + place * 19})`}>
        {isInHand && <rect x={14} y={0} width={WIDTH - 28} height={18} fill="var(--wash)" />}
        <Text x={20} y={14} anchor="start" weight={isInHand ? 700 : 400}>
          {word}
        </Text>
        <Text
          x={WIDTH - 20}
          y={14}
          anchor="end"
          isFigure={/^[-\u2212\d[\]. ]+$/.test(value)}
          size={value.length > 22 ? 12 : 14}
        >
          {value}
        </Text>
      </g>
    ));
  const { displayLow, displayHigh, lrv, urv } = menued.settings;
  const scale = shown.own ?? 0;
  const share = ((scale - displayLow) / (displayHigh - displayLow)) * 100;
  const unit = PRESSURE_UNITS[lesson.unit].label;
  const [figure, word] = {
    pressure: [formatFixed(shown.digital ?? 0, 3), unit],
    'per cent of range': [formatFixed(share, 2), '%'],
    'display scale': [formatFixed(scale, 2), face.displayUnit],
    output: [formatFixed(4 + (16 * ((shown.digital ?? 0) - lrv)) / (urv - lrv), 3), 'mA'],
  }[face.startView] as [string, string];
  return (
    <>
      <Text x={WIDTH / 2} y={62} colour="var(--muted)">
        {face.startView}, {word}
      </Text>
      <Text x={WIDTH / 2} y={104} size={32} weight={700} isFigure>
        {figure}
      </Text>
    </>
  );
}

/** Clicks of the wheel in a turn. */
const CLICKS = 12;

/** The wheel and the two keys of the menu. */
function MenuKeys({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const rest = useRef(0);
  const turned = turnedOf(bench, (act) => (act.do === 'wheel' ? act.clicks / CLICKS : null));
  const onTurn = (turns: number) => {
    rest.current += turns * CLICKS;
    const clicks = Math.trunc(rest.current + Math.sign(rest.current) * 1e-6);
    if (clicks === 0) return;
    rest.current -= clicks;
    onDo?.({ do: 'wheel', clicks });
  };
  return (
    <>
      <Knob
        x={54}
        y={178}
        name="Wheel"
        turned={turned}
        shown={bench.menu.isOpen ? 'walks the menu' : 'menu shut'}
        most={null}
        perKey={1 / CLICKS}
        isPlain
        onTurn={onDo && onTurn}
      />
      <Key
        x={108}
        y={158}
        width={74}
        name="Take, the upper key"
        word="Take"
        onPress={onDo && (() => onDo({ do: 'key', key: 'take' }))}
      />
      <Key
        x={192}
        y={158}
        width={74}
        name="Back, the lower key"
        word="Back"
        onPress={onDo && (() => onDo({ do: 'key', key: 'back' }))}
      />
      <Text x={187} y={216} colour="var(--muted)" size={13}>
        {bench.menu.said === '' || bench.menu.said === 'done'
          ? bench.menu.said
          : `refused: ${bench.menu.said}`}
      </Text>
    </>
  );
}

function Shows({ value, word }: { value: string; word: string }) {
  return (
    <>
      <Text x={WIDTH / 2} y={64} colour="var(--muted)">
        {word}
      </Text>
      <Text x={WIDTH / 2} y={112} size={34} weight={700} isFigure>
        {value}
      </Text>
    </>
  );
}

/** A vacuum gauge shows what its decade needs, and nothing where its curve is flat. */
const inDecades = (value: number): string =>
  !Number.isFinite(value) || value > 99_999
    ? '- - -'
    : value >= 100
      ? value.toFixed(0)
      : value.toPrecision(3);

function Face({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { world, shown, lesson } = bench;
  const { tested } = world;
  const unit = PRESSURE_UNITS[lesson.unit].label;
  switch (tested.kind) {
    case 'analog transmitter':
    case 'force balance':
      return <Screws bench={bench} onDo={onDo} />;
    case 'smart transmitter':
      return (
        <>
          <rect x={10} y={38} width={WIDTH - 20} height={104} fill="none" stroke="var(--rule)" />
          <Display bench={bench} />
          <MenuKeys bench={bench} onDo={onDo} />
        </>
      );
    case 'dial gauge':
      return (
        <>
          <DialFace
            x={110}
            y={131}
            low={tested.dial.low}
            high={tested.dial.high}
            value={tested.dial.low + tested.state.needle * (tested.dial.high - tested.dial.low)}
            unit={unit}
          />
          <Key
            x={222}
            y={176}
            width={48}
            name="Tap the gauge"
            word="Tap"
            onPress={onDo && (() => onDo({ do: 'tap' }))}
          />
        </>
      );
    case 'heat-loss gauge':
      return <Shows word={`shows, ${unit}`} value={inDecades(shown.own ?? 0)} />;
    case 'level gauge':
      return <Shows word="shows, m" value={formatFixed(shown.own ?? 0, 3)} />;
    case 'digital gauge':
    case 'capacitance gauge':
      return (
        <Shows
          word={`shows, ${unit}`}
          value={formatFixed(shown.own ?? 0, tested.kind === 'digital gauge' ? 2 : 3)}
        />
      );
  }
}

export function Instrument({ x, y, bench, onDo }: { x: number; y: number; bench: PracticeBench; onDo: Do }) {
  const { lesson, world } = bench;
  const { kind } = world.tested;
  const { lrv, urv } = lesson.range;
  const unit = PRESSURE_UNITS[lesson.unit].label;
  // Which range is set in it is read at it, where it is to be set.
  const range =
    lesson.task === 'service'
      ? ', 0 … 100 %'
      : lesson.task === 'set-up' || lesson.swap !== null
        ? ''
        : `, ${lesson.limitOf === 'span' ? lrv : ((lesson.points[0] ?? 0) / 100) * urv} … ${urv} ${unit}`;
  return (
    <Box x={x} y={y} width={WIDTH} height={232}>
      <rect width={WIDTH} height={28} fill="var(--ink)" />
      <Text x={12} y={19} weight={600} colour="var(--sheet)" anchor="start">
        {KIND[kind]}
        {range}
      </Text>
      <Face bench={bench} onDo={onDo} />
    </Box>
  );
}
