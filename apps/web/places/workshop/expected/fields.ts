import { RANGE_FIELDS } from '@/ui/range/fields';

/** The fields of Expected values: a range, and what is asked of it. */
export const EXPECTED_FIELDS = { ...RANGE_FIELDS, step: '10', evenIn: 'input', reading: '', applied: '' };

export type ExpectedFields = Readonly<typeof EXPECTED_FIELDS>;
