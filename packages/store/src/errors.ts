/** Why the store refused an act, as data; the wording is here and nowhere else. */
export type Refusal =
  | { code: 'no-such'; what: string; name: string | number }
  | { code: 'not-allowed'; person: string; role: string }
  | { code: 'unknown-person' }
  | { code: 'wrong-stage'; stage: string; wanted: string }
  | { code: 'job-already-open'; tag: string; jobId: number }
  | { code: 'run-incomplete'; missing: number }
  | { code: 'reading-exists'; output: string; by: string }
  | { code: 'no-such-point'; position: number }
  | { code: 'nothing-adjusted' }
  | { code: 'already-adjusted' }
  | { code: 'reason-needed'; why: string }
  | { code: 'reference-unfit'; tag: string; why: string }
  | { code: 'range-unfit'; why: string };

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
      return 'Choose who is working first: every act is kept with a name.';
    case 'wrong-stage':
      return `The job is at ${refusal.stage}; this belongs to ${refusal.wanted}. Reload to see where it stands.`;
    case 'job-already-open':
      return `${refusal.tag} already has an open job, ${refusal.jobId}.`;
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
    case 'range-unfit':
      return refusal.why;
  }
}
