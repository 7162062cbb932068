/** A first-order lag, exact for an input that is held over the step: y + (u - y)(1 - e^(-dt/tau)). */
export function lagged(y: number, input: number, tauS: number, stepS: number): number {
  return tauS > 0 ? input + (y - input) * Math.exp(-stepS / tauS) : input;
}

/**
 * Friction, backlash or play: what follows is moved only once the gap is used up (the play operator of Prandtl).
 * @param gap the whole width of the play
 */
export const dragged = (follower: number, leader: number, gap: number): number =>
  Math.min(leader + gap / 2, Math.max(leader - gap / 2, follower));
