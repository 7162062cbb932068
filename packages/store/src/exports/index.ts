/** Everything brought out. */
export { exportEverything } from './everything';
