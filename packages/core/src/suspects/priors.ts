/** Priors of parameters, each as a function of a standard normal number. */
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';
import type { Parameter } from './evidence';

export const normal =
  (mean: number, deviation: number): Parameter =>
  (u) =>
    mean + deviation * u;

/** @param spread of the natural logarithm */
export const logNormal =
  (median: number, spread: number): Parameter =>
  (u) =>
    median * Math.exp(spread * u);

export const between =
  (low: number, high: number): Parameter =>
  (u) =>
    low + (high - low) * normalCdf(u, 0, 1);
