import {
  acceptanceWithGuardBand,
  globalRisk,
  methodSixMultiplier,
  priorFromReliability,
  specificRisk,
  statementOf,
  testUncertaintyRatio,
  workGlobalRisk,
  workGuardBand,
  workPrior,
  workSpecificRisk,
  workUncertaintyRatio,
  type Limits,
} from '@barys/core/conformity';
import { CoreError } from '@barys/core/errors';
import { formatFixed, formatSignificant } from '@barys/core/text';
import type { Budget } from '@barys/core/uncertainty';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import type { Step } from '@barys/core/working';
import { Working } from '@/ui/Working';
import { Curve, type Mark } from './Curve';
import { normalDensity, riskAreas } from './pictures';

/** Share of instruments in tolerance before the measurement that the global risks are computed for. */
const RELIABILITY = 0.95;

const guardBandsMeet = ({ lower, upper }: Limits): boolean =>
  lower !== null && upper !== null && lower > upper;

/** Risks of the whole process, where the tolerance has two sides and the instruments spread evenly in it. */
function processRisks(budget: Budget, limits: Limits, acceptance: Limits) {
  if (limits.lower === null || limits.upper === null) return null;
  const half = (limits.upper - limits.lower) / 2;
  const prior = {
    ...priorFromReliability(half, RELIABILITY, 'true', budget.combined),
    mean: limits.lower + half,
  };
  return {
    half,
    prior,
    simple: globalRisk(limits, limits, prior, budget.combined),
    // Where the guard bands meet nothing is accepted, and there is no risk of doing so wrongly.
    banded: guardBandsMeet(acceptance) ? null : globalRisk(limits, acceptance, prior, budget.combined),
  };
}

function risksOf(budget: Budget, limits: Limits) {
  const ratio =
    limits.lower === null || limits.upper === null ? null : testUncertaintyRatio(limits, budget.expanded);
  const acceptance = acceptanceWithGuardBand(limits, budget.expanded, 1);
  return {
    ratio,
    process: processRisks(budget, limits, acceptance),
    methodSix: ratio === null ? null : methodSixMultiplier(ratio),
    acceptance,
    risk: specificRisk(limits, budget.value, budget.combined),
    statement: statementOf(limits, budget.expanded, budget.value),
  };
}

function attempt(budget: Budget, limits: Limits): ReturnType<typeof risksOf> | { readonly error: string } {
  try {
    return risksOf(budget, limits);
  } catch (error) {
    if (error instanceof CoreError) return { error: error.message };
    throw error;
  }
}

/** Ratio, guard band and the probability of being outside, for the result as it was measured. */
export function RiskSheet({ budget, limits }: { budget: Budget; limits: Limits }) {
  if (limits.lower === null && limits.upper === null)
    return (
      <Sheet title="Ratio and risk">
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Give a lower or an upper limit, and Barys compares the uncertainty with it.
        </Typography>
      </Sheet>
    );
  const risks = attempt(budget, limits);
  if ('error' in risks)
    return (
      <Sheet title="Ratio and risk">
        <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          {risks.error}
        </Typography>
      </Sheet>
    );
  return (
    <Sheet title="Ratio and risk" aside={`guard band w = U: ${risks.statement}`}>
      <RiskCurve budget={budget} limits={limits} risks={risks} />
      <RiskFacts risks={risks} />
      {risks.process !== null && (
        <Typography variant="caption" sx={{ display: 'block', color: 'text.secondary', mt: 0.5 }}>
          False accept and reject: joint probabilities over all instruments, if{' '}
          {formatSignificant(RELIABILITY * 100, 3)} % of them are in tolerance (JCGM 106, clause 9).
        </Typography>
      )}
      <Stack>
        <Working of="ratio, acceptance limits and risk" steps={() => workRisks(budget, limits, risks)} />
      </Stack>
    </Sheet>
  );
}

type Risks = ReturnType<typeof risksOf>;

const shown = (value: number): string => formatSignificant(value, 4);
const percent = (share: number) => <Figure>{formatSignificant(share * 100, 3)} %</Figure>;

function workRisks(budget: Budget, limits: Limits, { ratio, process }: Risks): readonly Step[] {
  return [
    ...(ratio === null ? [] : workUncertaintyRatio(limits, budget.expanded, budget.unit)),
    ...workGuardBand(limits, budget.expanded, 1, budget.unit),
    ...workSpecificRisk(limits, budget.value, budget.combined, budget.unit),
    ...(process === null
      ? []
      : [
          ...workPrior(process.half, RELIABILITY, 'true', budget.combined, budget.unit),
          ...workGlobalRisk(limits, limits, process.prior, budget.combined, budget.unit),
        ]),
  ];
}

/** What is known of the true value, with limits and acceptance limits, and what lies outside filled. */
function RiskCurve({
  budget,
  limits,
  risks: { acceptance, risk },
}: {
  budget: Budget;
  limits: Limits;
  risks: Risks;
}) {
  const curve = normalDensity(budget.value, budget.combined);
  const edges = [limits.lower, limits.upper].filter((edge) => edge !== null);
  const marks: Mark[] = [
    ...edges.map((at) => ({ at, word: 'limit', isStrong: true })),
    ...[acceptance.lower, acceptance.upper]
      .filter((edge) => edge !== null)
      .map((at) => ({ at, word: 'accept' })),
  ];
  const all = [...edges, budget.value - 4 * budget.combined, budget.value + 4 * budget.combined];
  const room = (Math.max(...all) - Math.min(...all)) * 0.06;
  return (
    <Curve
      data={(palette) => ({
        datasets: [
          {
            type: 'line',
            data: curve.map(({ x, y }) => ({ x, y })),
            borderColor: palette.ink,
            borderWidth: 1.6,
            pointRadius: 0,
          },
          {
            type: 'line',
            data: riskAreas(curve, limits).map(({ x, y }) => ({ x, y: y ?? Number.NaN })),
            borderWidth: 0,
            pointRadius: 0,
            fill: 'origin',
            backgroundColor: palette.outside,
          },
        ],
      })}
      marks={marks}
      reach={[Math.min(...all) - room, Math.max(...all) + room]}
      label={`What is known of the true value: normal around ${shown(budget.value)}, of which ${formatSignificant(risk * 100, 3)} % lies outside the limits.`}
    />
  );
}

function RiskFacts({ risks: { ratio, process, methodSix, acceptance, risk } }: { risks: Risks }) {
  return (
    <Facts
      facts={[
        [
          'Ratio (TUR)',
          ratio === null ? (
            'needs both limits'
          ) : (
            <>
              <Figure>{formatSignificant(ratio, 3)}</Figure> : 1
              {ratio >= 4
                ? ', good enough by common practice (4 : 1)'
                : ', below the 4 : 1 of common practice'}
            </>
          ),
        ],
        [
          'Accept, w = U',
          guardBandsMeet(acceptance) ? (
            'nothing: the guard bands meet'
          ) : (
            <Figure>
              {acceptance.lower === null ? 'up' : shown(acceptance.lower)}
              {acceptance.upper === null ? ' and above' : ` to ${shown(acceptance.upper)}`}
            </Figure>
          ),
        ],
        [
          'Method 6',
          methodSix === null ? (
            'needs both limits'
          ) : (
            <>
              guard band <Figure>{formatFixed(methodSix, 3)}</Figure> U
            </>
          ),
        ],
        ['Outside', <>with probability {percent(risk)}, from this one result</>],
        ...(process === null
          ? []
          : [
              [
                'False accept',
                <>
                  {percent(process.simple.falseAccept)}, with w = U{' '}
                  {percent(process.banded?.falseAccept ?? 0)}
                </>,
              ] as const,
              [
                'False reject',
                <>
                  {percent(process.simple.falseReject)}, with w = U{' '}
                  {percent(process.banded?.falseReject ?? process.simple.inTolerance)}
                </>,
              ] as const,
            ]),
      ]}
    />
  );
}
