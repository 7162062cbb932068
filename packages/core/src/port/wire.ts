/** How an instrument at the other end is reached, and how it is spoken to: data that an administrator enters. */
import type { Channel } from './port';

/** What is asked, and the regular expression of its answer. */
export interface Question {
  readonly ask: string;
  readonly answer: string;
}

/**
 * How an instrument is spoken to in lines of text. Syntax of commands after IEEE 488.2 and SCPI-1999 (from memory); what an
 * instrument calls its commands stands here.
 */
export interface Driver {
  readonly name: string;
  /** Groups `maker`, `model`, `serial` and `firmware` of its answer. */
  readonly identify: Question;
  /** Groups `value`, and `unit` and `stable` where they are said. Where the answer says no unit, it is this one. */
  readonly reads: Readonly<
    Partial<Record<Channel, (Question & { readonly unit: string | null }) | undefined>>
  >;
  /** Units as the instrument writes them, and in Barys' words. A pressure is set in the first. */
  readonly units: readonly { readonly theirs: string; readonly ours: string }[];
  /** What the instrument is set to before anything is read, once for each connection. */
  readonly begin: readonly string[];
  /** Commands with {value}, {unit} and {rate}; null where it cannot. */
  readonly set: readonly string[] | null;
  readonly hold: readonly string[] | null;
  readonly vent: readonly string[] | null;
  /** Whether something went wrong: the answer that says no. */
  readonly errors: Question | null;
  /** How long an answer may take, and the pause between commands, ms. */
  readonly answerMs: number;
  readonly pauseMs: number;
}

export const PARITIES = ['none', 'even', 'odd'] as const;
export interface TcpAddress {
  readonly kind: 'tcp';
  readonly host: string;
  readonly port: number;
}
export interface SerialAddress {
  readonly kind: 'serial';
  /** As the link's own machine calls the port. */
  readonly path: string;
  readonly baud: number;
  readonly dataBits: 7 | 8;
  readonly parity: (typeof PARITIES)[number];
  readonly stopBits: 1 | 2;
}

/** Of an instrument, or of a gateway in front of its loop. */
export interface HartAddress {
  readonly kind: 'tcp' | 'udp';
  readonly host: string;
  readonly port: number;
}

export type Wire =
  | { readonly speaks: 'text'; readonly at: TcpAddress | SerialAddress; readonly driver: Driver }
  | {
      readonly speaks: 'HART-IP';
      readonly at: HartAddress;
      /** Of the instrument on its loop. */
      readonly pollingAddress: number;
    };

/** An instrument that a link has to reach. */
export interface End {
  /** The tag of its reference. */
  readonly device: string;
  readonly wire: Wire;
}
