/** The tools of the workshop that are built, by what one comes for. */
export interface Tool {
  readonly path: string;
  readonly name: string;
  readonly about: string;
}

export interface ToolGroup {
  readonly name: string;
  readonly tools: readonly Tool[];
}

export const TOOL_GROUPS: readonly ToolGroup[] = [
  {
    name: 'Units, ranges and signals',
    tools: [
      {
        path: '/workshop/convert',
        name: 'Convert',
        about:
          'Any value in every sensible unit at once, with the water and mercury references side by side.',
      },
      {
        path: '/workshop/range-change',
        name: 'Range change',
        about:
          'Whether a body can be ranged so and by which limit not, what else would do, its accuracy then, and what must follow.',
      },
      {
        path: '/workshop/set-up',
        name: 'Set-up walk',
        about: 'The settings of an instrument in order, what was read there, and what each difference does.',
      },
      {
        path: '/workshop/expected',
        name: 'Expected values',
        about:
          'Any range and signal: the table at any step, the stave, and the input that a reading stands for.',
      },
    ],
  },
  {
    name: 'Levels',
    tools: [
      {
        path: '/workshop/level',
        name: 'Level',
        about:
          'Open and closed tanks, legs, seals, bubbler, interface, standpipe: the range, the display, and what is shown when something is not so.',
      },
      {
        path: '/workshop/drum',
        name: 'Boiler drum',
        about:
          'Range hot and cold by the densities of water and steam, what is shown at other pressures, and the hot check against the glass.',
      },
    ],
  },
  {
    name: 'Flow by differential pressure',
    tools: [
      {
        path: '/workshop/flow',
        name: 'Flow',
        about:
          'The root cut to zero beside a linear start, what a wrong zero and another density do, totals, and noise against damping.',
      },
      {
        path: '/workshop/orifice',
        name: 'Orifice plate',
        about:
          'Flow, differential or bore after ISO 5167-2, with its limits of use, uncertainty and pressure loss.',
      },
    ],
  },
  {
    name: 'Loops',
    tools: [
      {
        path: '/workshop/loop',
        name: 'Loop',
        about:
          'A chain of items as one long stave: expected at every tap, which item is wrong and how sure, and which tap to measure next.',
      },
      {
        path: '/workshop/supply',
        name: 'Loop supply',
        about:
          'What reaches the transmitter over wire, barrier and resistor, the longest cable, the least supply, and a bad connection in ohms.',
      },
    ],
  },
  {
    name: 'How sure a figure is',
    tools: [
      {
        path: '/workshop/uncertainty',
        name: 'Uncertainty',
        about:
          'A budget with the share of each component, the ratio and the risk, and Monte Carlo beside it.',
      },
    ],
  },
];

/** The tools that a page has beside it: those of its group; none on the index, which shows all. */
export const groupOf = (path: string): ToolGroup | undefined =>
  TOOL_GROUPS.find(({ tools }) =>
    tools.some((tool) => path === tool.path || path.startsWith(`${tool.path}/`)),
  );
