/** Choices of the register, free of the store so that pages in the browser can offer them. */
import { instrumentSchema } from '@barys/store/shapes';

export const CRITICALITIES = instrumentSchema.shape.criticality.options;
export const MEASURES = instrumentSchema.shape.measures.options;
export const STATES = instrumentSchema.shape.state.options;
export const ISOLATION_TIMES = instrumentSchema.shape.canBeIsolated.unwrap().options;
