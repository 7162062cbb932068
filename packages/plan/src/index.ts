/** Plans made by a solver. */
export { makePlan, type MadePlan, type SolveOptions } from './solve';
export { inventProblem } from './invented';
