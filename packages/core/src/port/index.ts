/** Instruments at the other end: the port that a job knows, and what a link and Barys say to each other. */
export {
  CHANNELS,
  type Channel,
  type Identity,
  type InstrumentAct,
  type Port,
  type PortState,
  type PortValue,
  type ReadSetup,
  type Tried,
} from './port';
export {
  CONTROLLER_DRIVER,
  INDICATOR_DRIVER,
  METER_DRIVER,
  RECEIVER_DRIVER,
  VOLTMETER_DRIVER,
} from './drivers';
export {
  PARITIES,
  type Driver,
  type End,
  type HartAddress,
  type Question,
  type SerialAddress,
  type TcpAddress,
  type Wire,
} from './wire';
export type {
  Beat,
  BeatAnswer,
  BeatTaken,
  BeatValue,
  BenchRequest,
  RequestAnswer,
  Task,
  TaskConfiguration,
  TaskTap,
} from './beat';
export { digitalWords, outputWords, unitWords } from './words';
