/** Who does something and when, by the server's clock. */
export interface Actor {
  readonly personId: number;
  readonly at: Date;
  /** The calendar day of `at` where the works is, ISO date: due dates are days, not instants. */
  readonly today: string;
  /** By which door they came; left out where that makes no difference. */
  readonly via?: 'session' | 'program';
  /** The token of the session that they came by, where nobody has made sure of it: what writes does so in the same statement. */
  readonly session?: string;
}
