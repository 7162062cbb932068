/**
 * A vacuum manifold: V dp/dt = Q - S (p - p_end), with the gas that its walls give off and a bleed of dry gas on one side and
 * the pumps on the other. The rotary pump ends near 1 Pa; a diffusion pump works below that only, and stalls above its
 * foreline pressure. Shut in, the pressure creeps up in a straight line. Textbook physics, from memory; sizes are inventions.
 * Absolute, Pa.
 */

export interface Manifold {
  readonly volumeM3: number;
  /** What the walls give off, Pa m3/s. */
  readonly outgassing: number;
  /** Flow of the bleed when it is full open, Pa m3/s. */
  readonly bleed: number;
  readonly rotary: Pump;
  readonly diffusion: Pump;
  /** Above this the diffusion pump stalls. */
  readonly stallsPa: number;
}

interface Pump {
  readonly speedM3PerS: number;
  readonly endPa: number;
}

export interface ManifoldState {
  readonly pressurePa: number;
  readonly rotary: boolean;
  readonly diffusion: boolean;
  /** Of the valve to the pumps, and of the bleed: 0 shut to 1 open. */
  readonly valve: number;
  readonly bleed: number;
}

export const manifoldAt = (pressurePa: number): ManifoldState => ({
  pressurePa,
  rotary: false,
  diffusion: false,
  valve: 0,
  bleed: 0,
});

/** The pump that works at this pressure; null where none does. */
export function pumpOf({ rotary, diffusion, stallsPa }: Manifold, state: ManifoldState): Pump | null {
  // Without the rotary pump behind it a diffusion pump has nowhere to put the gas.
  if (!state.rotary || state.valve === 0) return null;
  return state.diffusion && state.pressurePa <= stallsPa ? diffusion : rotary;
}

/** The manifold after a time; exact while the same pump works. */
export function pumped(manifold: Manifold, state: ManifoldState, stepS: number): ManifoldState {
  const flow = manifold.outgassing + manifold.bleed * state.bleed;
  const pump = pumpOf(manifold, state);
  if (pump === null) return { ...state, pressurePa: state.pressurePa + (flow / manifold.volumeM3) * stepS };
  const speed = pump.speedM3PerS * state.valve;
  const rest = pump.endPa + flow / speed;
  return {
    ...state,
    pressurePa: rest + (state.pressurePa - rest) * Math.exp((-speed / manifold.volumeM3) * stepS),
  };
}
