/**
 * What is asked before a stage can be left. Cautions and questions are usual practice in plain words; local codes and
 * licensed practice come first. Free of PostgreSQL, so that a form asks what the server will check.
 */
import { formatPlain } from '@barys/core/text';
import type { Instrument } from '../registers/instrument';
import type { SetupReading } from '../registers/setup-readings';
import type { Stage } from './stages';

export interface Question {
  readonly key: string;
  readonly text: string;
  /** `tick` is done or not, `choice` one of `options`, `text` anything that is written. */
  readonly kind: 'tick' | 'choice' | 'text';
  readonly options?: readonly string[];
  /** What an answer may look like. */
  readonly example?: string;
}

export interface Answer {
  readonly question: string;
  readonly answer: string;
}

/** Its answer says that nothing follows the loop. */
export const CONTROLLER_QUESTION = 'Controller that uses this measurement';
export const IN_MANUAL = 'In manual, set by the control room';
const SAFETY_BYPASS_QUESTION =
  'Safety function: which trips and interlocks are bypassed, and who authorised it';
const BYPASS_QUESTION = 'Trips and interlocks bypassed, and who authorised it; or “none”';
/** Their answers name what is bypassed. */
export const BYPASS_QUESTIONS: readonly string[] = [SAFETY_BYPASS_QUESTION, BYPASS_QUESTION];

type Asked = Pick<
  Instrument,
  'hazards' | 'criticality' | 'procedure' | 'configuration' | 'body' | 'hookUp' | 'kind'
>;

const tick = (key: string, text: string): Question => ({ key, text, kind: 'tick' });

/** Protective equipment by the words of a hazard; the eyes are covered at any pressure. Common practice. */
const PROTECTION: readonly (readonly [hazard: RegExp, key: string, text: string])[] = [
  [/hot|steam|vapour|\d{2,} ?°c/i, 'heat', 'Heat-proof gloves and sleeves on; hot lines screened or cooled'],
  [
    /toxic|monoxide|kiln gas|ammonia|chlor/i,
    'toxic',
    'Gas warning device worn, breathing protection at hand, a second person informed',
  ],
  [/caustic|alkali|acid|lime/i, 'splash', 'Face shield, apron and chemical gloves on; the eye wash is known'],
  [/oxygen/i, 'oxygen', 'Hands, references and lines free of oil and grease'],
  [
    /high pressure|\b([2-9]\d|\d{3,}) ?bar/i,
    'pressure',
    'Lines and fittings rated for the pressure; nobody in line with a vent or plug',
  ],
];

const HAZARDOUS_AREA = /hazardous area|explosi|zone [012]/i;

function authorise(asked: Asked): Question[] {
  const hazards = asked.hazards.join('; ');
  const isHazardousArea = HAZARDOUS_AREA.test(hazards);
  return [
    {
      key: 'permit',
      text: 'Permit to work: its number, or why none is needed',
      kind: 'text',
      example: 'W-2041',
    },
    {
      key: 'area',
      text: isHazardousArea
        ? 'Registered as a hazardous area: what was determined?'
        : 'Hazardous area: what was determined?',
      kind: 'choice',
      options: [
        ...(isHazardousArea ? [] : ['Not a hazardous area']),
        'Equipment is certified for the area; covers stay closed',
        'Declared free of gas: covers may be opened while the permit holds',
      ],
    },
    {
      key: 'controller',
      text: CONTROLLER_QUESTION,
      kind: 'choice',
      options: [IN_MANUAL, 'None uses it'],
    },
    {
      key: 'bypass',
      text: asked.criticality === 'safety function' ? SAFETY_BYPASS_QUESTION : BYPASS_QUESTION,
      kind: 'text',
      example: asked.criticality === 'safety function' ? 'high-pressure trip, shift manager' : 'none',
    },
    tick('eyes', 'Eye protection on'),
    ...PROTECTION.filter(([hazard]) => hazard.test(hazards)).map(([, key, text]) => tick(key, text)),
  ];
}

/** Whether damping is set in it. */
const isElectric = ({ body }: Pick<Asked, 'body'>): boolean =>
  body.technology === 'smart' || body.technology === 'analog';

/** Values that have to be set before zero and span mean anything. */
function setUp({ configuration, kind, body }: Asked): Question[] {
  const asksFor = (key: string, text: string, example: string): Question => ({
    key,
    text,
    kind: 'text',
    example,
  });
  const damping =
    isElectric({ body }) && configuration.dampingS > 0
      ? [tick('damping', `Damping noted (${formatPlain(configuration.dampingS)} s) and set low for the test`)]
      : [];
  if (configuration.outputUnit === 'mV')
    return [...damping, asksFor('excitation', 'Excitation at the bridge, as measured, V', '10.00')];
  if (kind === 'vacuum')
    return [
      ...damping,
      asksFor('gas', 'Gas in the chamber, and the gas that the gauge is set for', 'air, air'),
    ];
  if (body.technology === 'digital gauge')
    return [asksFor('gauge-set', 'Unit, resolution and filter that the gauge is set to', 'bar, 0.001, off')];
  return damping;
}

/** What happened so far in a job that brings a question of its own. */
export interface Circumstances {
  readonly isLegLost: boolean;
  readonly isHotCheck: boolean;
  /** Settings that matter and were last read otherwise than they must be. */
  readonly wrongSettings: readonly string[];
  /** How many lines of the job's lists are not ticked. */
  readonly openLines: number;
}

const NOTHING_SPECIAL: Circumstances = {
  isLegLost: false,
  isHotCheck: false,
  wrongSettings: [],
  openLines: 0,
};

export function circumstancesOf({
  reason,
  isLegLost,
  setups,
  lines,
}: {
  readonly reason: string;
  readonly isLegLost: boolean;
  readonly setups: readonly Pick<SetupReading, 'differences'>[];
  readonly lines: readonly { readonly isDone: boolean }[];
}): Circumstances {
  return {
    isLegLost,
    isHotCheck: reason === 'hot check',
    wrongSettings: (setups.at(-1)?.differences ?? [])
      .filter(({ matters }) => matters === 'yes')
      .map(({ name }) => name),
    openLines: lines.filter(({ isDone }) => !isDone).length,
  };
}

/** What is asked where something is left as it should not be. */
const leftOpen = ({ wrongSettings, openLines }: Circumstances): Question[] => [
  ...(wrongSettings.length === 0
    ? []
    : [
        {
          key: 'set-up',
          text: `Set-up last read otherwise than it must be (${wrongSettings.join(', ')}): put right, or why it stays`,
          kind: 'text' as const,
        },
      ]),
  ...(openLines === 0
    ? []
    : [
        {
          key: 'open-lines',
          text: `Lines of the lists not ticked (${openLines}): who does them and when, or why not`,
          kind: 'text' as const,
        },
      ]),
];

const live: readonly Question[] = [
  {
    key: 'live',
    text: 'Live reading against the process: what is shown, and what it should be',
    kind: 'text',
    example: '3.2 bar, panel gauge 3.2 bar',
  },
  {
    key: 'handed-back',
    text: 'Controller and trips put back by (an authorised person), or “none was touched”',
    kind: 'text',
    example: 'Shift manager',
  },
];

function restore({ configuration, body, hookUp }: Asked, circumstances: Circumstances): Question[] {
  // Nothing was opened or connected.
  if (circumstances.isHotCheck) return [...live, ...leftOpen(circumstances)];
  return [
    tick('disconnected', 'Test gear vented, disconnected and off the line; test connections plugged'),
    ...(isElectric({ body })
      ? [tick('damping', `Damping back at ${formatPlain(configuration.dampingS)} s`)]
      : []),
    ...(body.technology === 'smart'
      ? [tick('protection', 'Loop back in automatic, write protection back on')]
      : []),
    ...(hookUp === 'wet-leg' && circumstances.isLegLost
      ? [tick('leg', 'Wet leg filled again and proven full')]
      : []),
    ...live,
    tick('label', 'Label fixed, place clean, covers tight'),
    ...(configuration.version > 1
      ? [tick('receivers', 'Display, controller and computer have the range that is set')]
      : []),
    ...leftOpen(circumstances),
  ];
}

/**
 * All questions of a stage: the usual ones for this instrument, then those of its procedure.
 * @param special what happened so far that brings a question of its own
 */
export function questionsAt(
  stage: Stage,
  asked: Asked,
  special: Partial<Circumstances> = {},
): readonly Question[] {
  const circumstances = { ...NOTHING_SPECIAL, ...special };
  const own =
    stage === 'authorise'
      ? authorise(asked)
      : stage === 'isolate'
        ? [tick('zero-energy', 'Zero energy proven: vented, drained, and the reading has gone to its rest')]
        : stage === 'return'
          ? restore(asked, circumstances)
          : stage === 'connect'
            ? setUp(asked)
            : [];
  const ofProcedure = asked.procedure.content.questions
    .filter((question) => question.stage === stage)
    .map(({ text }, index): Question => ({ key: `procedure-${index + 1}`, text, kind: 'text' }));
  return [...own, ...ofProcedure];
}

/** The questions that have no answer yet. */
export const unanswered = (
  questions: readonly Question[],
  given: Readonly<Record<string, string>>,
): readonly Question[] =>
  questions.filter(({ key, kind, options }) => {
    const answer = (given[key] ?? '').trim();
    if (kind === 'choice') return !(options ?? []).includes(answer);
    return kind === 'tick' ? answer !== 'done' : answer === '';
  });

/** What was answered, in the order it was asked; what was not answered is left out. */
export const answersOf = (
  questions: readonly Question[],
  given: Readonly<Record<string, string>>,
): readonly Answer[] =>
  questions.flatMap(({ key, text }) => {
    const answer = (given[key] ?? '').trim();
    return answer === '' ? [] : [{ question: text, answer }];
  });
