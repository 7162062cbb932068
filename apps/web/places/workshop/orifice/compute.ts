/** What the fields of Orifice plate come to. */
import {
  brokenLimits,
  coefficientUncertainty,
  expansibilityUncertainty,
  flowUncertainty,
  orificeBore,
  orificeDifferential,
  orificeFlow,
  workOrifice,
  type BrokenLimit,
  type Fluid,
  type OrificeFlow,
  type Plate,
} from '@barys/core/flow';
import { CoreError } from '@barys/core/errors';
import { decimalsForResolution, formatFixed, formatSignificant } from '@barys/core/text';
import { convertPressure } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import Papa from 'papaparse';
import {
  differentialOf,
  findOf,
  fluidOf,
  labelsOf,
  massFlowOf,
  metresAt,
  plateOf,
  shownFlow,
  tapsOf,
  unitsOfOrifice,
  type OrificeFields,
} from './fields';
import { numberAt } from '../typed';

export interface OrificeRow {
  readonly percent: string;
  readonly flow: string;
  readonly differential: string;
  readonly coefficient: string;
  readonly expansibility: string;
  /** Flow that a plain root of the full-scale differential would show, and how far that is off, % of the flow. */
  readonly byRoot: string;
}

export interface OrificeResult {
  readonly plate: Plate;
  readonly fluid: Fluid;
  readonly flow: OrificeFlow;
  /** In the units of the fields. */
  readonly shown: {
    readonly flow: string;
    readonly differential: string;
    readonly boreMm: string;
    readonly loss: string;
  };
  readonly broken: readonly BrokenLimit[];
  readonly uncertaintyPercent: number;
  readonly coefficientPercent: number;
  readonly rows: readonly OrificeRow[];
  readonly working: () => readonly Step[];
}

/** Flows at which the plate is shown, % of the one that is worked out. */
const PERCENTS = [10, 25, 50, 75, 100, 110] as const;

/** Flow, differential or bore, as the fields ask. @throws CoreError at the field that is wrong */
function found(fields: OrificeFields): {
  readonly plate: Plate;
  readonly fluid: Fluid;
  readonly flow: OrificeFlow;
} {
  const fluid = fluidOf(fields);
  switch (findOf(fields)) {
    case 'flow': {
      const plate = plateOf(fields);
      return { plate, fluid, flow: orificeFlow(plate, fluid, differentialOf(fields)) };
    }
    case 'differential': {
      const plate = plateOf(fields);
      return { plate, fluid, flow: orificeDifferential(plate, fluid, massFlowOf(fields, fluid)) };
    }
    case 'bore': {
      const pipe = { pipeM: metresAt(fields, 'pipe', 'The diameter of the pipe'), taps: tapsOf(fields) };
      const { boreM, ...flow } = orificeBore(pipe, fluid, massFlowOf(fields, fluid), differentialOf(fields));
      return { plate: { ...pipe, boreM }, fluid, flow };
    }
  }
}

/** @throws CoreError at the field that is wrong */
export function computeOrifice(fields: OrificeFields): OrificeResult {
  const { plate, fluid, flow } = found(fields);
  const { differential } = unitsOfOrifice(fields);
  const full = [
    convertPressure(flow.differentialPa, 'Pa', differential),
    shownFlow(fields, fluid, flow.massFlow),
  ];
  // As finely as the full scale has five digits, so that a column has one last place.
  const [differentialPlaces, flowPlaces] = full.map((value) => decimalsForResolution(value / 20_000));
  const inUnit = (pascals: number) =>
    formatFixed(convertPressure(pascals, 'Pa', differential), differentialPlaces ?? 3);
  const flowWord = (massFlow: number) => formatFixed(shownFlow(fields, fluid, massFlow), flowPlaces ?? 3);
  const coefficientPercent = coefficientUncertainty(plate, flow.reynolds);
  const percent = (name: 'uPipe' | 'uBore' | 'uDifferential' | 'uDensity', what: string) => {
    const value = numberAt(fields, name, what);
    if (!(value >= 0)) throw new CoreError({ code: 'negative', name: what, value }, name);
    return value;
  };
  return {
    plate,
    fluid,
    flow,
    shown: {
      flow: flowWord(flow.massFlow),
      differential: inUnit(flow.differentialPa),
      boreMm: formatFixed(plate.boreM * 1000, 3),
      loss: inUnit(flow.lossPa),
    },
    broken: brokenLimits(plate, fluid, flow),
    coefficientPercent,
    uncertaintyPercent: flowUncertainty(flow.beta, {
      coefficient: coefficientPercent,
      expansibility: expansibilityUncertainty(fluid, flow.differentialPa),
      pipe: percent('uPipe', 'The uncertainty of the pipe'),
      bore: percent('uBore', 'The uncertainty of the bore'),
      differential: percent('uDifferential', 'The uncertainty of the differential'),
      density: percent('uDensity', 'The uncertainty of the density'),
    }),
    rows: PERCENTS.flatMap((share) => rowAt(plate, fluid, flow, share, { inUnit, flowWord })),
    working: () => workOrifice(plate, fluid, flow.differentialPa).working,
  };
}

/** None where a gas cannot flow so fast. */
function rowAt(
  plate: Plate,
  fluid: Fluid,
  full: OrificeFlow,
  share: number,
  show: { readonly inUnit: (pascals: number) => string; readonly flowWord: (massFlow: number) => string },
): OrificeRow[] {
  try {
    const at = orificeDifferential(plate, fluid, (full.massFlow * share) / 100);
    const byRoot = Math.sqrt(at.differentialPa / full.differentialPa) * 100;
    return [
      {
        percent: String(share),
        flow: show.flowWord(at.massFlow),
        differential: show.inUnit(at.differentialPa),
        coefficient: at.coefficient.toFixed(5),
        expansibility: at.expansibility.toFixed(5),
        byRoot: `${byRoot.toFixed(2)} %`,
      },
    ];
  } catch (error) {
    if (error instanceof CoreError) return [];
    throw error;
  }
}

/** What the tool Flow takes over: full scale as the data sheet would say it. */
export const flowAddress = (fields: OrificeFields, { shown }: OrificeResult): string =>
  String(
    new URLSearchParams({
      tag: fields.tag,
      differentialMax: shown.differential,
      unit: unitsOfOrifice(fields).differential,
      flowMax: shown.flow,
      flowUnit: labelsOf(fields).flow,
    }),
  );

export const noteOfOrifice = (fields: OrificeFields, { shown, flow, plate }: OrificeResult): string => {
  const labels = labelsOf(fields);
  return `Orifice ${shown.boreMm} mm in ${formatSignificant(plate.pipeM * 1000, 5)} mm, ${plate.taps} taps: ${shown.flow} ${labels.flow} at ${shown.differential} ${labels.differential}; C ${flow.coefficient.toFixed(4)}, ISO 5167-2.`;
};

export const csvOfOrifice = (fields: OrificeFields, rows: readonly OrificeRow[]): string => {
  const labels = labelsOf(fields);
  return Papa.unparse({
    fields: [
      'Flow, %',
      `Flow, ${labels.flow}`,
      `Differential, ${labels.differential}`,
      'C',
      'Expansibility',
      'A plain root shows, %',
    ],
    data: rows.map(({ percent, flow, differential, coefficient, expansibility, byRoot }) => [
      percent,
      flow,
      differential,
      coefficient,
      expansibility,
      byRoot.replace(' %', ''),
    ]),
  });
};
