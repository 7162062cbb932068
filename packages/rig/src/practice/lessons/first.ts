/** Ten lessons from easy to hard on benches with a fault or two. */
import { analogBench, balanceBench, either, gaugeBench, ROOT, smartBench } from './benches';
import { COMMON, RANGE, type Lesson } from './lesson';

export const FIRST: readonly Lesson[] = [
  {
    ...COMMON,
    id: 'five-point check',
    title: 'Five-point check',
    brief: 'It is due. Read it at five points up and down, judge it, and say what is wrong.',
    minutes: 20,
    hints: ['Come to each point from its own side.', 'What lies inside the adjust limit is left alone.'],
    reasoning:
      'All errors lie inside the adjust limit. Nothing is adjusted: turning a screw here only writes today’s noise into the drift history.',
    causes: ['nothing'],
    make: (seed) => analogBench(seed, (chance) => ({ zero: chance.uniform(-0.0006, 0.0006) })),
  },
  {
    ...COMMON,
    id: 'zero and span',
    title: 'Zero and span of an analog transmitter',
    brief: '“It reads wrong, and more so at the top.” As found first, then only what the readings ask for.',
    minutes: 35,
    hints: [
      'Both ends are off, and by different amounts.',
      'The span screw moves zero too: set it beyond its target by what zero takes back.',
    ],
    reasoning:
      'Errors at both ends that differ are zero and gain together. The screws pull on each other, so each setting is aimed beyond its target by what the other takes back.',
    causes: ['zero off', 'span off'],
    make: (seed) =>
      analogBench(seed, (chance) => ({
        zero: either(chance, 0.005, 0.01),
        span: either(chance, 0.01, 0.02),
      })),
  },
  {
    ...COMMON,
    id: '10 to 50 mA',
    title: 'Ten to fifty milliamperes',
    brief: 'An old transmitter with another signal. The limit is in per cent of its span of 40 mA.',
    range: { ...RANGE, outputLow: 10, outputHigh: 50 },
    minutes: 35,
    hints: ['10 mA at 0 %, 30 in the middle, 50 at 100 %.', 'Only one end is off: one screw is enough.'],
    reasoning:
      'Every point is off by the same: the zero has moved. The span screw is left alone, though the signal is unusual.',
    causes: ['zero off'],
    make: (seed) =>
      analogBench(seed, (chance) => ({ zero: either(chance, 0.005, 0.01) }), {
        ...RANGE,
        outputLow: 10,
        outputHigh: 50,
      }),
  },
  {
    ...COMMON,
    id: 'pneumatic balance',
    title: 'The pneumatic balance',
    brief:
      'It gives 3 to 15 psi and reads wrong. One per cent of span is ordinary for it. No overshoot: it sticks a little.',
    range: { ...RANGE, outputLow: 3, outputHigh: 15 },
    outputUnit: 'psi',
    readBy: 'meniscus',
    limitPercent: 1,
    minutes: 35,
    hints: [
      'The column swings before it rests: read the meniscus at its foot.',
      'The range wheel moves zero too.',
    ],
    reasoning:
      'Both ends are off. The wheel moves the arm of the feedback, and with it what the zero spring pulls: each setting is aimed past its target by what the other takes back.',
    causes: ['zero off', 'span off'],
    make: (seed) =>
      balanceBench(seed, (chance) => ({
        zeroTurns: either(chance, 0.6, 1),
        wheelTurns: either(chance, 0.8, 1.4),
      })),
  },
  {
    ...COMMON,
    id: 'digital gauge',
    title: 'A digital gauge with factory values',
    brief: '“It was right until somebody calibrated it.” It counts its calibrations.',
    range: { ...RANGE, outputLow: 0, outputHigh: 100 },
    outputUnit: 'kPa',
    limitPercent: 0.2,
    minutes: 20,
    hints: ['It has been calibrated in the field once.', 'The factory’s values are still in it.'],
    reasoning:
      'Right at zero and off in proportion above: its full scale was taken against a reference that was wrong. The factory’s values are restored, and it is read again before anything is calibrated.',
    causes: ['field values wrong'],
    make: gaugeBench,
  },
  {
    ...COMMON,
    id: 'sensor or output',
    readsDigital: true,
    title: 'Sensor trim or output trim',
    brief:
      'The panel reads wrong. Read the digital value and the current at each point before you trim anything.',
    minutes: 25,
    hints: ['Compare the digital value with the reference, and the current with the digital value.'],
    reasoning:
      'The digital value agrees with the reference and the current does not agree with the digital value: the output stage is off, and a sensor trim would hide it.',
    causes: ['output off'],
    make: (seed) =>
      smartBench(seed, (chance) => [{ fault: 'output offset', size: either(chance, 0.06, 0.12) }]),
  },
  {
    ...COMMON,
    id: 're-range or trim',
    readsDigital: true,
    title: 'Re-range or trim',
    brief: 'It reads low at the top and right at zero. The digital value is read too.',
    minutes: 25,
    hints: ['Does the digital value agree with the reference?', 'Read which range is set in it.'],
    reasoning:
      'The digital value is right everywhere: no sensor is off. The current is short in proportion, because another upper range value is set. The range is set right; a trim would have hidden it.',
    causes: ['range wrong'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'wrong range', size: chance.uniform(2, 5) }]),
  },
  {
    ...COMMON,
    id: 'position zero',
    title: 'Position zero',
    brief: 'It was mounted again after a repair, and reads with nothing applied.',
    minutes: 25,
    hints: ['The error is the same at every point.', 'A zero trim is made at true zero, as it hangs now.'],
    reasoning:
      'The fill of a tilted body stands as a head on its diaphragms: every point is off by the same. A zero trim at true zero, in the position that it keeps, takes that away; nothing else is touched.',
    causes: ['body tilted'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'tilt', size: either(chance, 0.4, 0.9) }]),
  },
  {
    ...COMMON,
    id: 'root twice',
    title: 'Root taken twice',
    brief:
      '“The flow reads far too high at half load.” It was set up anew last week. The sheet says: root in the output, nothing below 12 % of flow, linear in the scaled variable.',
    range: { ...RANGE, transferFunction: ROOT },
    minutes: 25,
    hints: ['It is right at 0 and at 100 %, and far off between.', 'Which variable drives the output?'],
    reasoning:
      'Right at both ends and far too high between: the root is taken once too often. The scaled variable takes it already, and drives an output that takes it again. It is set, not trimmed.',
    causes: ['root twice'],
    make: (seed) =>
      smartBench(
        seed,
        (chance) => [{ fault: 'doubled root' }, { fault: 'offset', size: chance.uniform(-0.002, 0.002) }],
        { transfer: ROOT },
      ),
  },
  {
    ...COMMON,
    id: 'receiver',
    title: 'A receiver that is wrong',
    brief:
      '“The panel reads two per cent too high. Trim the transmitter.” Its loop is in service and must not be opened: the meter’s leads are off.',
    lead: 'off',
    isInService: true,
    minutes: 25,
    hints: [
      'The test terminals let a current be read without opening the loop.',
      'Read the current at each point, and what the panel shows.',
    ],
    reasoning:
      'The current is right at every point and the panel is not: the receiver is off. A transmitter is never trimmed to a receiver that is not itself proven: every other receiver of the loop would be wrong.',
    causes: ['receiver wrong'],
    make: (seed) => smartBench(seed, (chance) => [{ fault: 'wrong receiver', size: either(chance, 1, 3) }]),
  },
];
