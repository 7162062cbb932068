/** Files brought in. */
export { type Checked } from './check';
export { COLUMNS, IMPORT_KINDS, type ImportKind } from './columns';
export { toCsv } from './csv';
export {
  bringFile,
  checkImport,
  type ImportChoice,
  importChoiceSchema,
  LARGEST_IMPORT_BYTES,
  leftOutAsCsv,
  openImport,
  takeImport,
} from './import';
