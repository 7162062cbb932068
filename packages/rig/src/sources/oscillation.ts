/** What swings to rest: x'' + 2 z w x' + w² x = w² u, exact over a step in which u is held. Textbook mechanics. */
export interface Swing {
  readonly x: number;
  /** Change a second. */
  readonly v: number;
}

/**
 * @param omega natural frequency, rad/s
 * @param zeta damping ratio, below one: under-damped
 */
export function swung({ x, v }: Swing, to: number, omega: number, zeta: number, stepS: number): Swing {
  const damped = omega * Math.sqrt(1 - zeta * zeta);
  const decay = Math.exp(-zeta * omega * stepS);
  const [cos, sin] = [Math.cos(damped * stepS), Math.sin(damped * stepS)];
  const away = x - to;
  const swing = (v + zeta * omega * away) / damped;
  return {
    x: to + decay * (away * cos + swing * sin),
    v: decay * (v * cos - ((omega * omega * away + zeta * omega * v) / damped) * sin),
  };
}

/** When it stands still for the first time on its way up, s; 0 where it is not going up. */
export function timeToPeak({ x, v }: Swing, to: number, omega: number, zeta: number): number {
  if (v <= 0) return 0;
  const damped = omega * Math.sqrt(1 - zeta * zeta);
  const pull = (omega * omega * (x - to) + zeta * omega * v) / damped;
  const time = Math.atan2(v, pull) / damped;
  return time > 0 ? time : 0;
}
