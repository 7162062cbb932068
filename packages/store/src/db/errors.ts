/** Why the store refused an act, as data; the wording is here and nowhere else. */
export type Refusal =
  | { code: 'no-such'; what: string; name: string | number }
  | { code: 'not-allowed'; person: string; role: string }
  | { code: 'unknown-person' }
  | { code: 'wrong-stage'; stage: string; wanted: string }
  | { code: 'job-already-open'; tag: string; jobId: number }
  | { code: 'job-open-since'; jobId: number }
  | { code: 'amendment-waits' }
  | { code: 'letterhead-missing' }
  | { code: 'not-cancellable'; why: string }
  | { code: 'run-incomplete'; missing: number }
  | { code: 'reading-exists'; output: string; by: string }
  | { code: 'no-such-point'; position: number }
  | { code: 'nothing-adjusted' }
  | { code: 'already-adjusted' }
  | { code: 'loop-fixed'; milliamp: number }
  | { code: 'reason-needed'; why: string }
  | { code: 'guarded'; why: string }
  | { code: 'reference-unfit'; tag: string; why: string }
  | { code: 'reference-reason-needed'; tag: string; why: string }
  | { code: 'range-unfit'; why: string }
  | { code: 'not-automatic'; why: string }
  | { code: 'not-writable'; why: string }
  | { code: 'bench-busy'; bench: string }
  | { code: 'taken'; what: string; name: string }
  | { code: 'changed-meanwhile'; what: string }
  | { code: 'unit-stays'; unit: string }
  | { code: 'unit-moved'; unit: string }
  | { code: 'not-walkable'; why: string }
  | { code: 'as-found-only'; procedure: string }
  | { code: 'valve-fault'; valve: string }
  | { code: 'unanswered'; questions: readonly string[] }
  | { code: 'range-questions'; open: readonly string[] }
  | { code: 'valves-not-right'; lacks: readonly string[] }
  | { code: 'own-work' }
  | { code: 'receiver-unproven'; receiver: string }
  | { code: 'run-empty' }
  | { code: 'desk-taken'; by: string }
  | { code: 'desk-needed' }
  | { code: 'password-to-change' }
  | { code: 'password-weak'; why: string }
  | { code: 'run-superseded' }
  | { code: 'key-used' }
  | { code: 'at-atmosphere'; what: string }
  | { code: 'returning-already' }
  | { code: 'not-first' }
  | { code: 'last-administrator' }
  | { code: 'wrong-password' }
  | { code: 'too-many-tries'; seconds: number }
  | { code: 'not-a-demo' }
  | { code: 'file-unreadable'; why: string }
  | { code: 'rows-bad'; count: number }
  | { code: 'not-entrusted'; person: string }
  | { code: 'over-cap'; criticality: string; months: number }
  | { code: 'calculates-already'; by: string }
  /** Of a plan: a day that is past, or years away. */
  | { code: 'no-plan-day'; day: string };

type Told<C extends Refusal['code']> = (refusal: Extract<Refusal, { code: C }>) => string;

/** What each refusal says to whoever is refused. */
const WORDS: { readonly [C in Refusal['code']]: Told<C> } = {
  'no-such': (refusal) => `There is no ${refusal.what} ${refusal.name}.`,
  'not-allowed': (refusal) => `${refusal.person} has the role ${refusal.role}, which may not do this.`,
  'unknown-person': () => 'Sign in first: every act is kept with a name.',
  'wrong-stage': (refusal) =>
    `The job is at ${refusal.stage}; this belongs to ${refusal.wanted}. Reload to see where it stands.`,
  'job-already-open': (refusal) => `${refusal.tag} already has an open job, ${refusal.jobId}.`,
  'job-open-since': (refusal) =>
    `Job ${refusal.jobId} was opened on this instrument since. It has to be signed or cancelled before this one can be sent back.`,
  'amendment-waits': () => 'An amendment of this waits for a second person. That one decides first.',
  'not-cancellable': (refusal) => `This job cannot be cancelled: ${refusal.why}`,
  'letterhead-missing': () =>
    'The certificate has to say which laboratory or workshop calibrated, and for whom. An administrator enters it in Office, Settings; then sign.',
  'run-incomplete': (refusal) =>
    `The run is not complete: ${refusal.missing} ${refusal.missing === 1 ? 'point has' : 'points have'} no reading.`,
  'reading-exists': (refusal) =>
    `This point already has the reading ${refusal.output} by ${refusal.by}. Reload to see it, then correct it if it is wrong.`,
  'no-such-point': (refusal) => `The run has no point ${refusal.position}.`,
  'nothing-adjusted': () =>
    'No adjustment is logged yet. Log what was done, or go back and leave the instrument as found.',
  'already-adjusted': () =>
    'An adjustment is logged: the as-found readings can no longer be changed, and an as-left run is required.',
  'loop-fixed': (refusal) =>
    `The loop current is still fixed at ${refusal.milliamp} mA over the link and follows no pressure: let it go first, or log as Other how it was let go.`,
  'reason-needed': (refusal) => `Say why: ${refusal.why}.`,
  guarded: (refusal) => `${refusal.why} If it was done all the same, the note says why.`,
  'reference-unfit': (refusal) => `${refusal.tag} cannot be used: ${refusal.why}.`,
  'reference-reason-needed': (refusal) =>
    `${refusal.tag} does not fit: ${refusal.why}. Choose another, or say why it is used all the same.`,
  'range-unfit': (refusal) => refusal.why,
  'not-automatic': (refusal) => `This run cannot go by itself. ${refusal.why}`,
  'not-writable': (refusal) => `Nothing can be changed there over a link. ${refusal.why}`,
  'bench-busy': (refusal) =>
    `${refusal.bench} is in another run, or this run goes by itself already. End that first.`,
  'not-walkable': (refusal) => refusal.why,
  'as-found-only': (refusal) =>
    `Under the procedure ${refusal.procedure} nothing is adjusted. Leave it as found and report it.`,
  'valve-fault': (refusal) => `${refusal.valve}: not kept. Put it back, or say that it was really moved so.`,
  unanswered: (refusal) =>
    `Not answered yet: ${refusal.questions.join('; ')}. Answer it, or pass over the stage with a reason.`,
  'range-questions': (refusal) => `Another range asks more. Not answered yet: ${refusal.open.join('; ')}.`,
  'valves-not-right': (refusal) => `The valves do not stand right yet: ${refusal.lacks.join(' ')}`,
  'returning-already': () =>
    'Valves were already moved back. Bring the instrument back to service, then open another job.',
  'at-atmosphere': (refusal) =>
    `${refusal.what} is not set at atmosphere: the barometer moves, and the setting would move with it. Pump down first.`,
  'run-superseded': () => 'This run no longer counts: another one was begun after it. Reload to see it.',
  'receiver-unproven': (refusal) =>
    `${refusal.receiver} is not proven: by itself it is not inside its own tolerance at every point. A transmitter is never adjusted to a receiver that is wrong; repair or set the receiver.`,
  'desk-taken': (refusal) =>
    `${refusal.by} has taken this job over. What you typed is still here: take the job over to enter it.`,
  'desk-needed': () => 'An entry from a browser says which one it is. Reload the page to enter it.',
  'password-to-change': () =>
    'Somebody else has set your password. Change it first, at your name, Password and tokens.',
  'password-weak': (refusal) => `This password would be guessed: ${refusal.why}`,
  'run-empty': () =>
    'No point of this run was read: there is nothing to judge. Read one, or throw the run away with the reason.',
  'own-work': () =>
    'Here a second person reviews: somebody who had no hand in this job, neither in its readings, its adjustments, its valves nor its signature.',
  'unit-stays': (refusal) =>
    `A certificate states its results for this range in ${refusal.unit}, so the unit stays. Add a range in the other unit.`,
  'unit-moved': (refusal) =>
    `The unit of this range is ${refusal.unit} by now. Open the page in another window, and give the figures in its unit.`,
  'not-first': () => 'This installation already has an administrator. Sign in instead.',
  'last-administrator': () => 'This is the last administrator. Make somebody else one first.',
  'wrong-password': () => 'Login and password do not belong together.',
  'key-used': () => 'Something else was kept under this key before. Send it again with a key of its own.',
  'too-many-tries': (refusal) =>
    `Too many tries with a wrong password. Try again in ${refusal.seconds} ${refusal.seconds === 1 ? 'second' : 'seconds'}.`,
  'file-unreadable': (refusal) => `The file cannot be taken: ${refusal.why}.`,
  'rows-bad': (refusal) =>
    `Nothing was imported: ${refusal.count} ${refusal.count === 1 ? 'row is' : 'rows are'} not good.`,
  'not-entrusted': (refusal) =>
    `${refusal.person} is not entrusted with the intervals of safety functions. An administrator says in Office, People, who is.`,
  'over-cap': (refusal) =>
    `The criticality ${refusal.criticality} allows at most ${refusal.months} months here. An administrator sets that in Office, Settings.`,
  'calculates-already': (refusal) =>
    `A calculation that ${refusal.by} asked for is running. Wait for it, or stop it first.`,
  'no-plan-day': (refusal) => `${refusal.day} is no day to plan: it is past, or more than two years away.`,
  'not-a-demo': () => 'Only a demo signs in without a password.',
  taken: (refusal) =>
    `There is already ${/^[aeiou]/.test(refusal.what) ? 'an' : 'a'} ${refusal.what} ${refusal.name}.`,
  'changed-meanwhile': (refusal) =>
    `Somebody else has changed ${refusal.what} in the meantime. Open it again in another tab to compare; what you typed is still here.`,
};

const describeRefusal = (refusal: Refusal): string => (WORDS[refusal.code] as Told<Refusal['code']>)(refusal);

export class StoreError extends Error {
  readonly refusal: Refusal;
  constructor(refusal: Refusal) {
    super(describeRefusal(refusal));
    this.name = 'StoreError';
    this.refusal = refusal;
  }
}

const UNIQUE_VIOLATION = '23505';

/**
 * Runs a write whose name must be free.
 * @throws StoreError `taken` where the database says that it is not
 */
export async function refuseTaken<T>(
  { what, name }: { readonly what: string; readonly name: string },
  write: () => Promise<T>,
): Promise<T> {
  try {
    return await write();
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === UNIQUE_VIOLATION)
      throw new StoreError({ code: 'taken', what, name });
    throw error;
  }
}
