export { exact, exactSum, roundDecimal, toNumber, withoutNoise, type Exact } from './fraction';
export {
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
