'use client';
import {
  adviseScrews,
  workNextSetting,
  type Screw,
  type ScrewAdvice,
  type ScrewSituation,
} from '@barys/core/adjust';
import { formatFixed } from '@barys/core/text';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Figure } from '@/ui/Figure';
import { Working } from '@/ui/Working';

export type Screws = Omit<ScrewSituation, 'now'>;

/** How outputs are shown: with the digits of the meter. */
export interface OutputShown {
  readonly unit: string;
  readonly decimals: number;
}

/** Two settings are a pass: `½ pass`, `1½ passes`. */
const passes = (settings: number): string => {
  const whole = Math.floor(settings / 2);
  const said = `${whole === 0 && settings > 0 ? '' : whole}${settings % 2 === 1 ? '½' : ''}`;
  return `${said} ${settings <= 2 ? 'pass' : 'passes'}`;
};

/** The advice on the screws, with what is read now before one is turned; null where a typed text is no number yet. */
export const screwAdvice = (screws: Screws, now: ScrewSituation['now']): ScrewAdvice =>
  adviseScrews({ ...screws, now });

/** Where to set the next reading, how many passes are made and left, or why no more turning helps. */
export function NextSetting({
  screws,
  now,
  applied,
  output,
  spanScrew,
}: {
  screws: Screws;
  now: ScrewSituation['now'];
  /** What is applied at both ends, in words. */
  applied: Readonly<Record<Screw, string>>;
  output: OutputShown;
  /** What sets the span, by its name. */
  spanScrew: string;
}) {
  const advice = screwAdvice(screws, now);
  const { next, state, settingsMade, settingsLeft, phase, spanOnZero } = advice;
  const shown = (value: number) => (
    <>
      <Figure>{formatFixed(value, output.decimals)}</Figure> {output.unit}
    </>
  );
  return (
    <Box role="status" aria-label="Next setting" sx={{ bgcolor: 'var(--wash)', p: 1.5, mb: 1.5 }}>
      {next === null ? (
        <Typography>
          {state === 'done'
            ? 'Both ends stand. Begin as left: it reads the points between too, which no screw sets.'
            : 'More turning gains nothing: what is left is no larger than the readings scatter, or the screws do not part zero from span. Look for friction, backlash or a leak; then read as left with the points between.'}
        </Typography>
      ) : (
        <Typography>
          <strong>
            Set {shown(next.setTo)} with the {next.screw === 'zero' ? 'zero screw' : spanScrew} at{' '}
            {applied[next.screw]}
          </strong>
          {next.setTo === next.willStandAt ? (
            '.'
          ) : next.screw === 'span' ? (
            <>; after zeroing it will stand at {shown(next.willStandAt)}.</>
          ) : (
            <>; after the span is set it will stand at {shown(next.willStandAt)}.</>
          )}
        </Typography>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        {settingsMade === 0 ? 'No pass yet' : `${passes(settingsMade)} so far`}
        {next === null ? '' : `, about ${passes(settingsLeft)} more, ${phase}`}.{' '}
        {settingsMade > 0 && (
          <>
            The span moves zero by <Figure>{formatFixed(spanOnZero.value, 2)}</Figure> ±{' '}
            <Figure>{formatFixed(spanOnZero.uncertainty, 2)}</Figure> of what it moves the top.
          </>
        )}
      </Typography>
      {next !== null && (
        <Working
          of="the next setting"
          steps={() => workNextSetting({ ...screws, now }, advice, output.unit)}
        />
      )}
    </Box>
  );
}
