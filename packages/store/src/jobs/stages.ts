/** The stages of a job, and why one is opened. */
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

/** Why a job is opened. */
export const JOB_REASONS = [
  'due',
  'fault',
  'check',
  'range change',
  'new',
  'cold set-up',
  'hot check',
  'loop check',
] as const;
export type JobReason = (typeof JOB_REASONS)[number];
