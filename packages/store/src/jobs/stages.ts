/** The stages of a job. */
/** In their order. */
export const STAGES = [
  'brief',
  'authorise',
  'isolate',
  'connect',
  'as-found',
  'judge',
  'adjust',
  'as-left',
  'return',
  'sign',
] as const;
export type Stage = (typeof STAGES)[number];

/** Where a job stands: at a stage, signed and waiting for a second person, closed, or given up. */
export type Standing = Stage | 'review' | 'closed' | 'cancelled';

/** Stages that a technician passes by answering what is asked there. */
export const ASKING_STAGES = ['brief', 'authorise', 'isolate', 'return'] as const;
export type AskingStage = (typeof ASKING_STAGES)[number];
