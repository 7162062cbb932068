/**
 * The partial derivative of a formula in symbols, for people to read: made from the tape by the rules of derivation, with
 * no more simplification than leaving out zeros and ones. Numbers come from `gradientOf`, never from this text.
 */
import type { Formula } from './parse';

/** How tightly a text holds together: a sum, a product, or something that needs no brackets anywhere. */
type Binding = 'sum' | 'product' | 'atom';

interface Text {
  readonly text: string;
  readonly binding: Binding;
}

/** A longer one tells nobody anything; the bound also keeps hostile formulas cheap. */
const LONGEST = 300;

class TooLong extends Error {}

const atom = (text: string): Text => ({ text, binding: 'atom' });
const ZERO = atom('0');
const ONE = atom('1');

const made = (text: string, binding: Binding): Text => {
  if (text.length > LONGEST) throw new TooLong();
  return { text, binding };
};
const bracketed = ({ text, binding }: Text, bindings: readonly Binding[]): string =>
  bindings.includes(binding) ? `(${text})` : text;
const call = (name: string, { text }: Text): Text => made(`${name}(${text})`, 'atom');

function sum(a: Text, b: Text): Text {
  if (a.text === '0') return b;
  return b.text === '0' ? a : made(`${a.text} + ${b.text}`, 'sum');
}
function difference(a: Text, b: Text): Text {
  if (b.text === '0') return a;
  return a.text === '0' ? negative(b) : made(`${a.text} - ${bracketed(b, ['sum'])}`, 'sum');
}
const negative = (a: Text): Text => (a.text === '0' ? ZERO : made(`-${bracketed(a, ['sum'])}`, 'sum'));

function product(a: Text, b: Text): Text {
  if (a.text === '0' || b.text === '0') return ZERO;
  if (a.text === '1') return b;
  return b.text === '1' ? a : made(`${bracketed(a, ['sum'])} * ${bracketed(b, ['sum'])}`, 'product');
}
function quotient(a: Text, b: Text): Text {
  if (a.text === '0') return ZERO;
  return b.text === '1'
    ? a
    : made(`${bracketed(a, ['sum'])} / ${bracketed(b, ['sum', 'product'])}`, 'product');
}
function power(a: Text, b: Text): Text {
  if (b.text === '1') return a;
  return made(`${bracketed(a, ['sum', 'product'])}^${bracketed(b, ['sum', 'product'])}`, 'product');
}

/** A register of the tape: what it is, and its derivative; null where none can be written. */
interface Register {
  readonly own: Text;
  readonly slope: Text | null;
  readonly constant?: number;
}

const TWO = atom('2');

function derived(operation: string, a: Register, b: Register): Omit<Register, 'constant'> {
  const [x, y, dx, dy] = [a.own, b.own, a.slope, b.slope];
  const unary = (own: Text, slope: (dx: Text) => Text) => ({ own, slope: dx === null ? null : slope(dx) });
  const binary = (own: Text, slope: (dx: Text, dy: Text) => Text | null) => ({
    own,
    slope: dx === null || dy === null ? null : slope(dx, dy),
  });
  switch (operation) {
    case 'add':
      return binary(sum(x, y), sum);
    case 'subtract':
      return binary(difference(x, y), difference);
    case 'multiply':
      return binary(product(x, y), (da, db) => sum(product(da, y), product(x, db)));
    case 'divide':
      return binary(quotient(x, y), (da, db) =>
        difference(quotient(da, y), quotient(product(x, db), power(y, TWO))),
      );
    case 'pow':
      return binary(power(x, y), (da, db) => {
        const less = b.constant === undefined ? difference(y, ONE) : atom(String(b.constant - 1));
        const ofBase = product(product(y, power(x, less)), da);
        return sum(ofBase, product(product(power(x, y), call('ln', x)), db));
      });
    case 'unaryMinus':
      return unary(negative(x), negative);
    case 'sqrt':
      return unary(call('sqrt', x), (da) => quotient(da, product(TWO, call('sqrt', x))));
    case 'exp':
      return unary(call('exp', x), (da) => product(call('exp', x), da));
    case 'ln':
      return unary(call('ln', x), (da) => quotient(da, x));
    case 'sin':
      return unary(call('sin', x), (da) => product(call('cos', x), da));
    case 'cos':
      return unary(call('cos', x), (da) => negative(product(call('sin', x), da)));
    case 'tan':
      return unary(call('tan', x), (da) => product(sum(ONE, power(call('tan', x), TWO)), da));
    case 'Phi':
      return unary(call('Phi', x), (da) =>
        product(
          quotient(call('exp', negative(quotient(power(x, TWO), TWO))), call('sqrt', atom('2 * pi'))),
          da,
        ),
      );
    case 'abs':
      return unary(call('abs', x), (da) =>
        da.text === '0' ? ZERO : product(quotient(x, call('abs', x)), da),
      );
    // These have no derivative that holds everywhere and can be written in one line.
    default:
      return binary(made(`${operation}(${x.text}, ${y.text})`, 'atom'), (da, db) =>
        da.text === '0' && db.text === '0' ? ZERO : null,
      );
  }
}

/**
 * The partial derivative by one name, in the notation of formulas.
 * @returns null where it cannot be written in one line of reasonable length
 * @example derivativeText(parseFormula('a^2 * b'), 'a') // '2 * a * b'
 */
export function derivativeText(formula: Formula, name: string): string | null {
  const registers: Register[] = [
    ...formula.names.map((one) => ({ own: atom(one), slope: one === name ? ONE : ZERO })),
    ...formula.constants.map((value) => ({ own: atom(String(value)), slope: ZERO, constant: value })),
  ];
  const at = (index: number): Register => registers[index] ?? { own: ZERO, slope: ZERO };
  try {
    for (const { operation, a, b } of formula.steps) registers.push(derived(operation, at(a), at(b)));
  } catch (error) {
    if (error instanceof TooLong) return null;
    throw error;
  }
  return at(formula.result).slope?.text ?? null;
}
