/** An exchange of the body, step by step: what is done out of its order is done all the same, and said. */
import type { World } from '../world';
import type { Swap } from './lessons/lesson';

/** Less than this is no pressure, input unit. */
const NO_PRESSURE = 0.5;

export class Exchange {
  readonly made = new Set<number>();
  body: number | null = null;
  /** Which body is mounted; null for the one that was there. */
  mounted: number | null = null;

  constructor(readonly swap: Swap) {}

  private placeOf(what: 'off' | 'on' | 'out' | 'in'): number {
    return this.swap.steps.findIndex((step) => step.does === what);
  }
  /** Whether its supply is off. */
  get isDead(): boolean {
    return this.made.has(this.placeOf('off')) && !this.made.has(this.placeOf('on'));
  }

  pick(body: number): string | null {
    if (this.made.has(this.placeOf('in'))) return 'a body is mounted already';
    if (this.swap.bodies[body] === undefined) return 'the store has no such body';
    this.body = body;
    return null;
  }

  step(
    step: number,
    applied: number,
  ): { readonly unsafe: readonly string[]; readonly refused: string | null; readonly isMounted: boolean } {
    const { steps } = this.swap;
    const now = steps[step];
    if (now === undefined || this.made.has(step))
      return { unsafe: [], refused: 'that is done', isMounted: false };
    if (now.does === 'in' && this.body === null)
      return { unsafe: [], refused: 'choose a body first', isMounted: false };
    const unsafe: string[] = [];
    const missed = steps.find((_one, place) => place < step && !this.made.has(place));
    if (now.does === 'out' && Math.abs(applied) > NO_PRESSURE)
      unsafe.push('the body was taken off under pressure');
    else if (missed !== undefined) unsafe.push(`“${now.words}” came before “${missed.words}”`);
    this.made.add(step);
    if (now.does === 'in') this.mounted = this.body;
    return { unsafe, refused: null, isMounted: now.does === 'in' };
  }

  make(seed: number): World {
    return this.swap.make(seed, this.mounted ?? 0);
  }
}
