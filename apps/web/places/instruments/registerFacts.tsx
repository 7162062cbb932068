import { HOOK_UPS } from '@barys/core/hookup';
import { settingWords, transferWords } from '@barys/core/setup';
import { formatPlain } from '@barys/core/text';
import { convertPressure } from '@barys/core/units';
import { accuracyOfBody, toleranceOf, type Instrument } from '@barys/store/registers';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { pointsInWords } from '@/places/office/procedures/words';
import { toleranceInWords } from '@/ui/range/toleranceInWords';
import { dueInWords, showDate } from '@/server/dates';

/** Facts that are known; what nobody entered is left out. */
const entered = (facts: readonly (readonly [string, ReactNode])[]) =>
  facts.filter(([, value]) => value !== '' && value !== null);

/** What the register says of an instrument, as its page lists it. */
export function registerFacts(instrument: Instrument, today: string) {
  const { dueOn, body, configuration } = instrument;
  const tolerance = toleranceOf(instrument);
  const span = Math.abs(
    convertPressure(configuration.urv, configuration.inputUnit, body.unit) -
      convertPressure(configuration.lrv, configuration.inputUnit, body.unit),
  );
  const accuracy = accuracyOfBody(body, span);
  return entered([
    [
      'Next due',
      instrument.state === 'retired'
        ? 'retired'
        : `${showDate(dueOn)} (${dueInWords(dueOn, today)}), every ${instrument.intervalMonths} months`,
    ],
    [
      'Tolerance',
      `${toleranceInWords(tolerance)}, adjust above ${formatPlain(tolerance.adjustAbovePercentOfLimit)} % of it`,
    ],
    ['Measures', `${instrument.measures}, ${instrument.kind}`],
    ['Hook-up', HOOK_UPS[instrument.hookUp].name],
    [
      'Procedure',
      <>
        <Link prefetch={false} href={`/office/procedures/${instrument.procedure.id}`}>
          {instrument.procedure.name}
        </Link>
        : {pointsInWords(instrument.procedure.content)}
      </>,
    ],
    ['Transfer', transferWords(configuration.transferFunction)],
    [
      'Damping',
      `${formatPlain(configuration.dampingS)} s${configuration.displayDampingS === null ? '' : `, display ${formatPlain(configuration.displayDampingS)} s`}`,
    ],
    [
      'Switches',
      configuration.switchingPoints.length === 0 ? null : settingWords(configuration, 'switchingPoints'),
    ],
    [
      'Body',
      <>
        <Link prefetch={false} href={`/office/bodies/${body.id}`}>
          {body.model}
        </Link>
        {accuracy === null
          ? ''
          : `, maker's accuracy ±${formatPlain(Number(accuracy.toPrecision(3)))} % at this span`}
      </>,
    ],
    ['Place', [instrument.site, instrument.area].filter(Boolean).join(', ')],
    ['Walk', instrument.walk === null ? null : `place ${instrument.walk}`],
    ['Loop', instrument.loop],
    ['Criticality', instrument.criticality],
    ['Hazards', instrument.hazards.length === 0 ? 'none entered' : instrument.hazards.join('; ')],
    ['Owner', instrument.owner],
    ['State', instrument.state],
    ['Serial', instrument.serial],
    ['Description', instrument.description],
    [
      'Configuration',
      <Link key="versions" prefetch={false} href={`/instruments/${instrument.tag}/versions`}>
        version {configuration.version}, {showDate(configuration.madeAt)}, {configuration.madeBy}:{' '}
        {configuration.reason}
      </Link>,
    ],
  ]);
}
