/** What swings to rest: x'' + 2 z w x' + w² x = w² u, exact over a step in which u is held. Textbook mechanics. */
export interface Swing {
  readonly x: number;
  /** Change a second. */
  readonly v: number;
}

/** What the cosine, and the sine over its frequency, become as the damping grows: a hyperbola, and a line between the two. */
function shapeOf(omega: number, zeta: number, stepS: number): readonly [cosine: number, sine: number] {
  const rate = omega * Math.sqrt(Math.abs(1 - zeta * zeta));
  if (rate * stepS < 1e-9) return [1, stepS];
  return zeta < 1
    ? [Math.cos(rate * stepS), Math.sin(rate * stepS) / rate]
    : [Math.cosh(rate * stepS), Math.sinh(rate * stepS) / rate];
}

/**
 * @param omega natural frequency, rad/s
 * @param zeta damping ratio: below one it swings, at one and above it creeps
 */
export function swung({ x, v }: Swing, to: number, omega: number, zeta: number, stepS: number): Swing {
  const decay = Math.exp(-zeta * omega * stepS);
  const [cosine, sine] = shapeOf(omega, zeta, stepS);
  const away = x - to;
  return {
    x: to + decay * (away * cosine + (v + zeta * omega * away) * sine),
    v: decay * (v * cosine - (omega * omega * away + zeta * omega * v) * sine),
  };
}

/** When it stands still for the first time on its way up, s; 0 where it is not going up, or creeps and does not swing. */
export function timeToPeak({ x, v }: Swing, to: number, omega: number, zeta: number): number {
  if (v <= 0 || zeta >= 1) return 0;
  const damped = omega * Math.sqrt(1 - zeta * zeta);
  const pull = (omega * omega * (x - to) + zeta * omega * v) / damped;
  const time = Math.atan2(v, pull) / damped;
  return time > 0 ? time : 0;
}
