import { isPressureUnit } from '@barys/core/units';
import type { Instrument } from '@barys/store/registers';
import type { ConnectionKind } from '@/ui/ConnectionDrawing';

/** Which drawing shows the connection of an instrument. */
export function connectionKind({ kind, configuration, body }: Instrument): ConnectionKind {
  if (kind === 'vacuum') return 'vacuum';
  if (configuration.signal === 'indication' || configuration.signal === 'digital') return 'gauge';
  if (body.technology === 'pneumatic' || isPressureUnit(configuration.outputUnit)) return 'pneumatic';
  return configuration.outputUnit === 'mA' ? 'loop' : 'voltage';
}
