export { parseTyped, typedDecimals, type TypedNumber } from './entry';
export { decimalsForResolution, formatFixed, formatPlain, formatSigned, resolutionForSpan } from './format';
