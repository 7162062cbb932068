export { blockEvaluator, evaluateFormula, gradientOf, type Values } from './evaluate';
export { parseFormula, type Formula } from './parse';
export { formulaTex, symbolTex } from './tex';
