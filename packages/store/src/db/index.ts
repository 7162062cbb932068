/** The database, its errors, and the trail with its seals. */
export { appendToTrail } from './audit';
export {
  type Bulk,
  type Database,
  isDatabaseAway,
  isDiskFull,
  isNeverKept,
  isUnwritable,
  openDatabase,
  type Queryable,
} from './database';
export { type Refusal, StoreError } from './errors';
export { listen, type Notices } from './notices';
export { type Anchor, lastSeal, type Seal, SealFolder, sealOfJob, sealTrail, shortHash } from './seals';
export { trailEntries, type TrailEntry, trailFacets, type TrailQuery, trailQuerySchema } from './trail';
export { type Verified, type Progress, verifyTrail } from './verify';
