export { derivativeText } from './derivative';
export { blockEvaluator, evaluateFormula, gradientOf, type Values } from './evaluate';
export { isReservedName } from './operations';
export { parseFormula, type Formula } from './parse';
export { formulaTex, symbolTex } from './tex';
