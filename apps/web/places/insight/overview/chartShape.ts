/** What a chart of insight shows, as plain data. */
export interface ChartShape {
  /** Upright for months, lying for names. */
  readonly kind: 'months' | 'names';
  readonly labels: readonly string[];
  /** Null where there is nothing to show. */
  readonly values: readonly (number | null)[];
  /** How far each value may lie below and above. */
  readonly bounds?: readonly (readonly [low: number, high: number] | null)[];
  readonly unit: string;
  /** End of the axis, where it is not that of the values. */
  readonly most?: number;
  /** Where a bar leads. */
  readonly links?: readonly (string | null)[];
}
