/** A formula in the notation of LaTeX, in symbols or with its numbers in place of them. */
import type { MathNode } from 'mathjs/number';
import type { Formula } from './parse';

const GREEK = new Set(
  'alpha beta gamma delta epsilon eta theta kappa lambda mu nu pi rho sigma tau phi psi omega Delta Phi Sigma'.split(
    ' ',
  ),
);

const letter = (text: string): string =>
  GREEK.has(text) ? `\\${text}` : text.length === 1 ? text : `\\mathrm{${text}}`;

/**
 * A name as a symbol: what follows the first underscore is its index.
 * @example symbolTex('rho_air') // '\\rho_{\\mathrm{air}}'
 */
export function symbolTex(name: string): string {
  const [base = '', ...rest] = name.split('_');
  return rest.length === 0 ? letter(base) : `${letter(base)}_{${letter(rest.join(','))}}`;
}

/** The formula with each name written by `write`. */
export function formulaTex(formula: Formula, write: (name: string) => string): string {
  const handler = (node: MathNode): string | undefined => {
    const shape = node as unknown as {
      type: string;
      name?: string;
      fn?: { name?: string };
      args?: MathNode[];
    };
    if (shape.type === 'SymbolNode')
      return shape.name === 'pi' && !formula.names.includes('pi') ? '\\pi' : ` ${write(shape.name ?? '')}`;
    if (shape.type === 'FunctionNode' && shape.fn?.name === 'Phi')
      return `\\Phi\\left(${shape.args?.[0]?.toTex({ handler, parenthesis: 'auto' }) ?? ''}\\right)`;
    return undefined;
  };
  return formula.node.toTex({ handler, parenthesis: 'auto' });
}
