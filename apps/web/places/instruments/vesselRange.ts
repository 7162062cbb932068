/** The range that an instrument's vessel comes to, beside the one that is set. */
import { CoreError } from '@barys/core/errors';
import { convert } from '@barys/core/units';
import { toleranceOf, type Instrument, type Liquid, type VesselVersion } from '@barys/store/registers';
import { rangeOfVessel } from '@/places/workshop/hand-over/vessel';
import { unitsOfFields, LEVEL_FIELDS } from '@/places/workshop/level/fields';
import { densityOfChosen } from '@/places/workshop/level/density';
import { typedNumber } from '@/ui/readNumber';

export interface VesselAgainstRange {
  /** By the vessel, in the unit of the range. */
  readonly lrv: number;
  readonly urv: number;
  /** The larger difference of an end, per cent of the span that is set. */
  readonly offPercent: number;
  /** Beyond the tolerance: a range change is asked for. */
  readonly asksForChange: boolean;
  /** Where the plant's table says another density by now, kg/m³. */
  readonly density: { readonly kept: number; readonly now: number } | null;
}

/** A table that differs by less says the same: a ten-thousandth is a hundredth of a per cent of a range. */
const SAME_DENSITY = 1e-4;

/** Null also where the table no longer reaches to the temperature: there is nothing to hold against it. */
function densityNow(
  { tool, fields }: VesselVersion,
  liquids: readonly Liquid[],
): VesselAgainstRange['density'] {
  if (tool !== 'level') return null;
  const level = { ...LEVEL_FIELDS, ...fields };
  const now = orNull(() => densityOfChosen(level, liquids));
  const kept = convert(typedNumber(level.liquid) ?? NaN, unitsOfFields(level).density, 'kgPerM3');
  return now === null || Math.abs(now - kept) <= SAME_DENSITY * kept ? null : { kept, now };
}

/** What work gives; null where the core refuses what is kept. */
function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

/** Null where what is kept comes to no range any more. */
export function vesselAgainstRange(
  vessel: VesselVersion,
  instrument: Instrument,
  liquids: readonly Liquid[],
): VesselAgainstRange | null {
  const { lrv: low, urv: high, inputUnit } = instrument.configuration;
  const range = orNull(() => rangeOfVessel(vessel.tool, vessel.fields));
  if (range === null) return null;
  const [lrv, urv] = [convert(range.lrvPa, 'Pa', inputUnit), convert(range.urvPa, 'Pa', inputUnit)];
  const offPercent = (Math.max(Math.abs(lrv - low), Math.abs(urv - high)) / Math.abs(high - low)) * 100;
  const asksForChange = offPercent > toleranceOf(instrument).percentOfSpan * (1 + 1e-9);
  return { lrv, urv, offPercent, asksForChange, density: densityNow(vessel, liquids) };
}
