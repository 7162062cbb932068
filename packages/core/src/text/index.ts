export { parseTyped, typedDecimals, withPoint, type TypedNumber } from './entry';
export {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSignificant,
  formatSigned,
  resolutionForSpan,
} from './format';
