/**
 * Formulas as text, such as the model of an uncertainty budget: parsed by mathjs into a tape of operations, so that the
 * same few steps give a value, a gradient and a block of Monte Carlo trials. Only arithmetic and the functions in
 * `operations.ts` are taken; nothing of a formula is ever run as code.
 */
import { parse, type MathNode } from 'mathjs/number';
import { CoreError } from '../errors';
import { CONSTANTS, FUNCTIONS, OPERATIONS, type OperationName } from './operations';

/** One step of a tape: an operation on two earlier registers (a unary one reads `a` only). */
export interface TapeStep {
  readonly operation: OperationName;
  readonly a: number;
  readonly b: number;
}

export interface Formula {
  readonly text: string;
  /** Names that need a value, in the order of the first registers. */
  readonly names: readonly string[];
  /** Values of the registers behind the names. */
  readonly constants: readonly number[];
  /** Each step fills the next register; the last one is the result. */
  readonly steps: readonly TapeStep[];
  /** Register of the result. */
  readonly result: number;
  readonly node: MathNode;
}

const LONGEST = 2000;

const refuse = (text: string, why: string): never => {
  throw new CoreError({ code: 'not-a-model', text: text.slice(0, 80), why }, 'model');
};

interface NodeShape {
  readonly type: string;
  readonly name?: string;
  readonly value?: unknown;
  readonly fn?: string | { readonly name?: string };
  readonly args?: readonly NodeShape[];
  readonly content?: NodeShape;
}

type Tree = number | string | { readonly operation: OperationName; readonly args: readonly Tree[] };

const constantOf = (name: string): number | undefined =>
  Object.hasOwn(CONSTANTS, name) ? CONSTANTS[name] : undefined;

/** Brackets inside brackets, and signs in a row: more is nothing that a person means, and deep trees cost much. */
const DEEPEST = 60;

function depthOf(text: string): number {
  let [depth, deepest] = [0, 0];
  for (const sign of text) {
    if (sign === '(') depth += 1;
    else if (sign === ')') depth -= 1;
    deepest = Math.max(deepest, depth);
  }
  return deepest;
}

const SIGNS_IN_A_ROW = new RegExp(`(?:[-+^]\\s*){${DEEPEST}}`);

function treeOf(node: NodeShape, text: string): Tree {
  switch (node.type) {
    case 'ParenthesisNode':
      return node.content === undefined ? refuse(text, 'a bracket is empty') : treeOf(node.content, text);
    case 'ConstantNode':
      return typeof node.value === 'number' && Number.isFinite(node.value)
        ? node.value
        : refuse(text, 'it holds something that is not a number');
    case 'SymbolNode':
      return constantOf(node.name ?? '') ?? node.name ?? '';
    case 'OperatorNode':
    case 'FunctionNode': {
      const called = typeof node.fn === 'string' ? node.fn : (node.fn?.name ?? '');
      const args = (node.args ?? []).map((arg) => treeOf(arg, text));
      if (called === 'unaryPlus' && args[0] !== undefined) return args[0];
      const known = Object.hasOwn(FUNCTIONS, called) ? FUNCTIONS[called] : undefined;
      const operation = node.type === 'FunctionNode' ? known : (called as OperationName);
      if (operation === undefined || !Object.hasOwn(OPERATIONS, operation))
        return refuse(text, `"${called}" is not one of + - * / ^ ${Object.keys(FUNCTIONS).join(' ')}`);
      const { arity } = OPERATIONS[operation];
      const isList = operation === 'max' || operation === 'min';
      if (isList ? args.length < 2 : args.length !== arity)
        return refuse(text, `"${called}" has the wrong number of arguments`);
      return args.slice(2).reduce<Tree>((left, right) => ({ operation, args: [left, right] }), {
        operation,
        args: args.slice(0, 2),
      });
    }
    default:
      return refuse(text, 'only arithmetic and functions of one line are taken');
  }
}

function collect(tree: Tree, names: string[], constants: number[]): void {
  if (typeof tree === 'string') {
    if (!names.includes(tree)) names.push(tree);
  } else if (typeof tree === 'number') {
    if (!constants.includes(tree)) constants.push(tree);
  } else tree.args.forEach((arg) => collect(arg, names, constants));
}

/**
 * Parses a formula.
 * @param longest characters that are taken; a working writes its own formulas and needs no bound
 * @throws CoreError `not-a-model`
 * @example parseFormula('100 * (I - (4 + 16 * p / span)) / 16').names // ['I', 'p', 'span']
 */
export function parseFormula(text: string, longest = LONGEST): Formula {
  if (text.trim() === '') return refuse(text, 'nothing is written');
  if (text.length > longest) return refuse(text, `it is longer than ${longest} characters`);
  if (depthOf(text) > DEEPEST || SIGNS_IN_A_ROW.test(text))
    return refuse(text, `its brackets or signs are nested more than ${DEEPEST} deep`);
  let node: MathNode;
  try {
    node = parse(text.replaceAll('**', '^'));
  } catch (cause) {
    return refuse(text, cause instanceof Error ? cause.message.replace(/\.$/, '') : 'it cannot be read');
  }
  const tree = treeOf(node, text);
  const names: string[] = [];
  const constants: number[] = [];
  collect(tree, names, constants);
  const steps: TapeStep[] = [];
  const first = names.length + constants.length;
  const register = (part: Tree): number => {
    if (typeof part === 'string') return names.indexOf(part);
    if (typeof part === 'number') return names.length + constants.indexOf(part);
    const [a = 0, b = 0] = part.args.map(register);
    steps.push({ operation: part.operation, a, b });
    return first + steps.length - 1;
  };
  const result = register(tree);
  return { text, names, constants, steps, result, node };
}
