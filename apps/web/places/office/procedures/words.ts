/** How procedures are said. */
import type { School } from '@barys/core/adjust';
import { formatPlain } from '@barys/core/text';
import type { ProcedureContent, ProcedureLine } from '@barys/store/registers';

const DIRECTION = { up: 'up', down: 'down', 'up-and-down': 'up and down' } as const;
export const POINTS_IN = {
  'percent-of-input': '% of input',
  'percent-of-output': '% of output',
  absolute: 'in the input unit',
} as const;

/** `0, 25, 50, 75, 100 % of input, up and down` */
export function pointsInWords({ points, direction, cycles, offStopsPercent }: ProcedureContent): string {
  const parts = [
    `${points.values.map(formatPlain).join(', ')} ${POINTS_IN[points.in]}`,
    DIRECTION[direction],
    cycles > 1 ? `${cycles} cycles` : '',
    offStopsPercent > 0 ? `${formatPlain(offStopsPercent)} % off the stops` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

export const SCHOOL_WORD: Record<School, string> = {
  'past the adjust limit': 'only past the adjust limit',
  'always to the nearest': 'always to the nearest',
};

export function ruleInWords(rule: ProcedureContent['decisionRule']): string {
  switch (rule.kind) {
    case 'simple':
      return 'simple acceptance';
    case 'guard-band':
      return `guard band of ${formatPlain(rule.r)} U${rule.isUndecidedAllowed ? ', undecided inside it' : ''}`;
    case 'method-6':
      return 'guard band of method 6';
  }
}

export const namesOf = (procedures: readonly ProcedureLine[]): { id: number; name: string }[] =>
  procedures.map(({ id, name }) => ({ id, name }));
