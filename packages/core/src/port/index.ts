/** Instruments at the other end: the port that a job knows, and what a link and Barys say to each other. */
export { CHANNELS, type Channel, type Identity, type Port, type PortState, type PortValue } from './port';
export type { Beat, BeatAnswer, BeatTaken, BeatValue, Task, TaskConfiguration } from './beat';
