'use client';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Act, PracticeBench } from '@barys/rig/practice';
import { Sheet } from '@/ui/Sheet';
import { NumberAct } from './NumberAct';

export function ControllerPanel({
  bench: { lesson },
  onDo,
}: {
  bench: PracticeBench;
  onDo: (act: Act) => string | null;
}) {
  return (
    <Sheet title="Controller">
      <NumberAct
        label={`Pressure, ${PRESSURE_UNITS[lesson.unit].label}`}
        word="Set it"
        onGive={(to) => onDo({ do: 'pressure', to })}
      />
    </Sheet>
  );
}
