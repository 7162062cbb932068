export { exact, exactProduct, exactSum, roundDecimal, toNumber, withoutNoise, type Exact } from './decimal';
export {
  compareSurds,
  magnitude,
  minus,
  plus,
  rational,
  root,
  scaled,
  signOf,
  surdToNumber,
  times,
  type Surd,
} from './surd';
