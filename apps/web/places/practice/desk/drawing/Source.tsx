'use client';
/** What makes the pressure, and the references that show it. */
import { PRESSURE_UNITS } from '@barys/core/units';
import { formatFixed, formatSigned } from '@barys/core/text';
import type { PracticeBench } from '@barys/rig/practice';
import { Knob } from './Knob';
import { Box, Key, LINE, Press, Reader, Text, type Do } from './parts';
import { lastOf, turnedOf } from './turned';

function Pump({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const fine = turnedOf(bench, (act) => (act.do === 'fine' ? act.turns : null));
  const open = lastOf(bench, 0, (act) => (act.do === 'vent' ? act.open : null));
  return (
    <>
      <path d="M 180 392 H 202 V 150" {...LINE} strokeWidth={6} />
      <Knob
        x={40}
        y={270}
        name="Vent"
        turned={open / 4}
        shown={open === 0 ? 'shut' : open === 1 ? 'open' : `${formatFixed(open * 100, 0)} %`}
        most={[0, 0.25]}
        onTurn={onDo && ((turns) => onDo({ do: 'vent', open: Math.min(1, Math.max(0, open + turns * 4)) }))}
      />
      <Press
        x={80}
        y={232}
        width={100}
        height={172}
        name="Pump, one stroke"
        onPress={onDo && (() => onDo({ do: 'stroke' }))}
      >
        <rect x={18} y={2} width={64} height={14} fill="var(--ink)" />
        <rect
          x={38}
          y={16}
          width={24}
          height={64}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={2.5}
        />
        <rect y={80} width={100} height={90} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2.5} />
        <Text x={50} y={130} weight={600}>
          Pump
        </Text>
      </Press>
      <Knob
        x={258}
        y={270}
        name="Fine"
        turned={fine}
        shown={`${formatSigned(fine, 2)} turns`}
        most={[-15, 15]}
        onTurn={onDo && ((turns) => onDo({ do: 'fine', turns }))}
      />
    </>
  );
}

function Controller({ bench }: { bench: PracticeBench }) {
  const [panel] = bench.shown.receivers;
  const isRead = bench.world.tested.kind === 'smart transmitter' && panel !== undefined;
  return (
    <>
      <path d="M 110 320 V 150" {...LINE} strokeWidth={6} />
      <Box x={26} y={316} width={168} height={88}>
        <Text x={84} y={34} weight={600}>
          Controller
        </Text>
        <Text x={84} y={62} colour="var(--muted)">
          {bench.shown.isStable ? 'stands' : 'on its way'}
        </Text>
      </Box>
      {isRead && (
        <Reader x={222} y={196} width={150} word="panel, %" size={24}>
          {formatFixed(panel, 1)}
        </Reader>
      )}
    </>
  );
}

/** A needle valve opens by decades: so many turns from hardly anything to full. */
const BLEED_TURNS = 5;
const bleedOf = (turns: number): number =>
  turns <= 0 ? 0 : 10 ** (Math.min(turns, BLEED_TURNS) - BLEED_TURNS);
const turnsOf = (bleed: number): number => (bleed === 0 ? 0 : Math.log10(bleed) + BLEED_TURNS);

function Manifold({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { source } = bench.world;
  if (source.kind !== 'manifold') return null;
  const { rotary, diffusion, valve, bleed } = source.state;
  const bleedTurns = turnsOf(bleed);
  return (
    <>
      <path d="M 86 250 V 150 M 250 250 V 150" {...LINE} strokeWidth={6} />
      <Knob
        x={86}
        y={250}
        name="Valve to the pumps"
        turned={valve / 4}
        shown={valve === 0 ? 'shut' : `${formatFixed(valve * 100, 0)} %`}
        most={[0, 0.25]}
        onTurn={
          onDo && ((turns) => onDo({ do: 'manifold', valve: Math.min(1, Math.max(0, valve + turns * 4)) }))
        }
      />
      <Knob
        x={250}
        y={250}
        name="Bleed of dry gas"
        turned={bleedTurns}
        shown={bleed === 0 ? 'shut' : `${formatFixed(bleedTurns, 1)} turns`}
        most={[0, BLEED_TURNS]}
        onTurn={
          onDo &&
          ((turns) => onDo({ do: 'manifold', bleed: bleedOf(Number((bleedTurns + turns).toFixed(4))) }))
        }
      />
      <Key
        x={20}
        y={350}
        width={130}
        name="Rotary pump"
        word={`Rotary ${rotary ? 'runs' : 'off'}`}
        isOn={rotary}
        onPress={onDo && (() => onDo({ do: 'manifold', rotary: !rotary }))}
      />
      <Key
        x={160}
        y={350}
        width={130}
        name="Diffusion pump"
        word={`Diffusion ${diffusion ? 'on' : 'off'}`}
        isOn={diffusion}
        onPress={onDo && (() => onDo({ do: 'manifold', diffusion: !diffusion }))}
      />
    </>
  );
}

/** Where the line begins, by what stands under it. */
const FROM: Readonly<Partial<Record<PracticeBench['world']['source']['kind'], number>>> = {
  pump: 199,
  controller: 107,
  manifold: 83,
};

/** The source with its line to the instrument, and what reads the pressure in it. */
export function Source({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const { shown, lesson, world } = bench;
  const unit = PRESSURE_UNITS[lesson.unit].label;
  const { kind } = world.source;
  return (
    <>
      {/* From the source along the bench to the instrument, with a branch to each reference. */}
      <path d={`M ${FROM[kind] ?? 110} 150 H 470 M 240 150 V 130`} {...LINE} strokeWidth={6} />
      {kind === 'pump' && <Pump bench={bench} onDo={onDo} />}
      {kind === 'controller' && <Controller bench={bench} />}
      {kind === 'manifold' && <Manifold bench={bench} onDo={onDo} />}
      {lesson.second === null ? (
        <Reader x={150} y={48} width={180} word={`reference, ${unit}`}>
          {formatFixed(shown.reference, 3)}
        </Reader>
      ) : (
        <>
          <Reader
            x={20}
            y={48}
            width={170}
            word={`fine, to ${formatFixed(lesson.second.fineLimit, 0)} ${unit}`}
            size={26}
          >
            {bench.fine === null ? 'over' : formatFixed(bench.fine, 3)}
          </Reader>
          <Reader x={206} y={48} width={170} word={`coarse, ${unit}`} size={26}>
            {formatFixed(shown.reference, 0)}
          </Reader>
        </>
      )}
    </>
  );
}
