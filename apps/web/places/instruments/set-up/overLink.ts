/** What a transmitter said of its settings over a link, as it is typed. */
import type { ReadSetup } from '@barys/core/port';
import type { Configuration } from '@barys/store/registers';
import type { SetupFields } from './fields';

/** HART keeps a short tag of so many characters. */
const TAG_LENGTH = 8;

/** No finer than what a meter there shows. */
const shown = (value: number, decimals: number): string => String(Number(value.toFixed(decimals)));

export interface OverLink {
  readonly fields: Partial<SetupFields>;
  /** What has to be said beside them. */
  readonly words: readonly string[];
}

/**
 * Only what it says is filled in: what stays empty is looked at where it stands.
 * @param from bench and instrument there
 */
export function readOverLink(
  read: ReadSetup,
  { tag, configuration }: { readonly tag: string; readonly configuration: Configuration },
  from: string,
): OverLink {
  const words: string[] = [];
  const isItself = read.tag.toUpperCase() === tag.toUpperCase().slice(0, TAG_LENGTH);
  words.push(
    isItself
      ? `It says that it is ${read.tag}.`
      : `It says that it is ${read.tag === '' ? 'nothing: it has no tag' : read.tag}, and this is ${tag}. Make sure that it is the one that is meant.`,
  );
  // A root is said without where it begins.
  const isRootInPart =
    read.transfer === 'square-root' && configuration.transferFunction.kind.startsWith('square-root-');
  if (read.transfer === null)
    words.push('Its transfer function is a curve of its own: read it at the instrument.');
  if (isRootInPart)
    words.push('It takes a square root; where the root begins it does not say: read it at the instrument.');
  if (read.isProtected) words.push('It is write protected.');
  const [sensorC, electronicsC] = read.temperaturesC;
  return {
    words,
    fields: {
      inputUnit: read.unit,
      lrv: String(read.lrv),
      urv: String(read.urv),
      dampingS: String(read.dampingS),
      ...(read.transfer !== null && !isRootInPart && { transfer: read.transfer }),
      ...(sensorC !== undefined && { sensorC: String(sensorC) }),
      ...(electronicsC !== undefined && { electronicsC: String(electronicsC) }),
      ...(read.volts !== null && {
        terminalV: shown(read.volts, 2),
        terminalMilliamp: shown(read.milliamp, 3),
      }),
      remark: `Read over the link: ${from}.`,
    },
  };
}
