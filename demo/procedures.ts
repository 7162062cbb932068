/** The procedures of the demo's works: those that come with Barys, and two of its own. */
import type { Queryable } from '@barys/store/db';
import type { Actor } from '@barys/store/people';
import { findProcedure, keepProcedure, procedureContentSchema } from '@barys/store/registers';

const HEAT_LOSS = 'Heat-loss vacuum gauge';

/** Numbers of the procedures that come with Barys, in the order of their migration. */
const PROCEDURE = {
  upAndDown: 1,
  threePoints: 2,
  asFoundOnly: 3,
  gauge: 4,
  vacuum: 5,
  flow: 6,
  pneumatic: 7,
  /** The works' own, entered after them. */
  decades: 8,
  guarded: 9,
};

/** What of an instrument decides how it is calibrated. */
interface Calibrated {
  readonly body: string;
  readonly signal?: string;
  readonly transferFunction?: { readonly kind: string };
  readonly state?: string;
  readonly criticality?: string;
}

/** Which procedure an instrument of the demo is calibrated by. */
export function procedureFor({
  signal = 'mA-4-20',
  transferFunction,
  state,
  body,
  criticality,
}: Calibrated): number {
  if (criticality === 'safety function') return PROCEDURE.guarded;
  if (body === HEAT_LOSS) return PROCEDURE.decades;
  if (signal === 'indication') return PROCEDURE.gauge;
  if (signal === 'V-0-10') return PROCEDURE.vacuum;
  if (transferFunction?.kind.startsWith('square-root')) return PROCEDURE.flow;
  if (signal.startsWith('psi')) return PROCEDURE.pneumatic;
  return state === 'spare' ? PROCEDURE.threePoints : PROCEDURE.upAndDown;
}

const usualContent = async (tx: Queryable, id: number) => {
  const [usual] = (await findProcedure(tx, id)).versions;
  if (usual === undefined) throw new Error(`Barys ships no procedure ${id}`);
  return usual;
};

async function plantProcedure(
  tx: Queryable,
  actor: Actor,
  number: number,
  entry: { readonly name: string; readonly content: unknown; readonly reason: string },
): Promise<void> {
  const content = procedureContentSchema.parse(entry.content);
  const id = await keepProcedure(tx, actor, null, { ...entry, content });
  if (id !== number) throw new Error(`the demo's own procedure has the number ${id}`);
}

/** A safety function is accepted only where the uncertainty does not reach over its limit. */
async function plantGuarded(tx: Queryable, actor: Actor): Promise<void> {
  await plantProcedure(tx, actor, PROCEDURE.guarded, {
    name: 'Safety functions, with guard band',
    content: {
      ...(await usualContent(tx, PROCEDURE.upAndDown)),
      decisionRule: { kind: 'guard-band', r: 1, isUndecidedAllowed: true },
    },
    reason: 'asked for by the safety plan of the boiler house',
  });
}

/** One point a decade, from the lowest up: what a heat-loss gauge is compared at. */
async function plantDecades(tx: Queryable, actor: Actor): Promise<void> {
  await plantProcedure(tx, actor, PROCEDURE.decades, {
    name: 'Heat-loss gauge, by decades',
    content: {
      ...(await usualContent(tx, PROCEDURE.vacuum)),
      points: { in: 'absolute', values: [0.001, 0.01, 0.1, 1, 10] },
      direction: 'up',
      questions: [
        {
          stage: 'connect',
          text: 'Has the gauge been pumped well below its lowest decade before zero is set?',
        },
      ],
    },
    reason: 'pan seal test bench',
  });
}

/** Enters the works' own procedures, in the order of their numbers. */
export async function plantProcedures(tx: Queryable, actor: Actor): Promise<void> {
  await plantDecades(tx, actor);
  await plantGuarded(tx, actor);
}
