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
  | { code: 'reason-needed'; why: string }
  | { code: 'reference-unfit'; tag: string; why: string }
  | { code: 'reference-reason-needed'; tag: string; why: string }
  | { code: 'range-unfit'; why: string }
  | { code: 'taken'; what: string; name: string }
  | { code: 'changed-meanwhile'; what: string }
  | { code: 'unit-stays'; unit: string }
  | { code: 'not-walkable'; why: string }
  | { code: 'as-found-only'; procedure: string }
  | { code: 'valve-fault'; valve: string }
  | { code: 'unanswered'; questions: readonly string[] }
  | { code: 'range-questions'; open: readonly string[] }
  | { code: 'valves-not-right'; lacks: readonly string[] }
  | { code: 'own-work' }
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
  | { code: 'rows-bad'; count: number };

export class StoreError extends Error {
  readonly refusal: Refusal;
  constructor(refusal: Refusal) {
    super(describeRefusal(refusal));
    this.name = 'StoreError';
    this.refusal = refusal;
  }
}

function describeRefusal(refusal: Refusal): string {
  switch (refusal.code) {
    case 'no-such':
      return `There is no ${refusal.what} ${refusal.name}.`;
    case 'not-allowed':
      return `${refusal.person} has the role ${refusal.role}, which may not do this.`;
    case 'unknown-person':
      return 'Sign in first: every act is kept with a name.';
    case 'wrong-stage':
      return `The job is at ${refusal.stage}; this belongs to ${refusal.wanted}. Reload to see where it stands.`;
    case 'job-already-open':
      return `${refusal.tag} already has an open job, ${refusal.jobId}.`;
    case 'job-open-since':
      return `Job ${refusal.jobId} was opened on this instrument since. It has to be signed or cancelled before this one can be sent back.`;
    case 'amendment-waits':
      return 'An amendment of this waits for a second person. That one decides first.';
    case 'not-cancellable':
      return `This job cannot be cancelled: ${refusal.why}`;
    case 'letterhead-missing':
      return 'The certificate has to say which laboratory or workshop calibrated, and for whom. An administrator enters it in Office, Settings; then sign.';
    case 'run-incomplete':
      return `The run is not complete: ${refusal.missing} ${refusal.missing === 1 ? 'point has' : 'points have'} no reading.`;
    case 'reading-exists':
      return `This point already has the reading ${refusal.output} by ${refusal.by}. Reload to see it, then correct it if it is wrong.`;
    case 'no-such-point':
      return `The run has no point ${refusal.position}.`;
    case 'nothing-adjusted':
      return 'No adjustment is logged yet. Log what was done, or go back and leave the instrument as found.';
    case 'already-adjusted':
      return 'An adjustment is logged: the as-found readings can no longer be changed, and an as-left run is required.';
    case 'reason-needed':
      return `Say why: ${refusal.why}.`;
    case 'reference-unfit':
      return `${refusal.tag} cannot be used: ${refusal.why}.`;
    case 'reference-reason-needed':
      return `${refusal.tag} does not fit: ${refusal.why}. Choose another, or say why it is used all the same.`;
    case 'range-unfit':
    case 'not-walkable':
      return refusal.why;
    case 'as-found-only':
      return `Under the procedure ${refusal.procedure} nothing is adjusted. Leave it as found and report it.`;
    case 'valve-fault':
      return `${refusal.valve}: not kept. Put it back, or say that it was really moved so.`;
    case 'unanswered':
      return `Not answered yet: ${refusal.questions.join('; ')}. Answer it, or pass over the stage with a reason.`;
    case 'range-questions':
      return `Another range asks more. Not answered yet: ${refusal.open.join('; ')}.`;
    case 'valves-not-right':
      return `The valves do not stand right yet: ${refusal.lacks.join(' ')}`;
    case 'returning-already':
      return 'Valves were already moved back. Bring the instrument back to service, then open another job.';
    case 'at-atmosphere':
      return `${refusal.what} is not set at atmosphere: the barometer moves, and the setting would move with it. Pump down first.`;
    case 'run-superseded':
      return 'This run no longer counts: another one was begun after it. Reload to see it.';
    case 'desk-taken':
      return `${refusal.by} has taken this job over. What you typed is still here: take the job over to enter it.`;
    case 'desk-needed':
      return 'An entry from a browser says which one it is. Reload the page to enter it.';
    case 'password-to-change':
      return 'Somebody else has set your password. Change it first, at your name, Password and tokens.';
    case 'password-weak':
      return `This password would be guessed: ${refusal.why}`;
    case 'run-empty':
      return 'No point of this run was read: there is nothing to judge. Read one, or throw the run away with the reason.';
    case 'own-work':
      return 'Here a second person reviews: somebody who had no hand in this job, neither in its readings, its adjustments, its valves nor its signature.';
    case 'unit-stays':
      return `A certificate states its results for this range in ${refusal.unit}, so the unit stays. Add a range in the other unit.`;
    case 'not-first':
      return 'This installation already has an administrator. Sign in instead.';
    case 'last-administrator':
      return 'This is the last administrator. Make somebody else one first.';
    case 'wrong-password':
      return 'Login and password do not belong together.';
    case 'key-used':
      return 'Something else was kept under this key before. Send it again with a key of its own.';
    case 'too-many-tries':
      return `Too many tries with a wrong password. Try again in ${refusal.seconds} ${refusal.seconds === 1 ? 'second' : 'seconds'}.`;
    case 'file-unreadable':
      return `The file cannot be taken: ${refusal.why}.`;
    case 'rows-bad':
      return `Nothing was imported: ${refusal.count} ${refusal.count === 1 ? 'row is' : 'rows are'} not good.`;
    case 'not-a-demo':
      return 'Only a demo signs in without a password.';
    case 'taken':
      return `There is already ${/^[aeiou]/.test(refusal.what) ? 'an' : 'a'} ${refusal.what} ${refusal.name}.`;
    case 'changed-meanwhile':
      return `Somebody else has changed ${refusal.what} in the meantime. Open it again in another tab to compare; what you typed is still here.`;
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
