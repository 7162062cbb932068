/** The tools of the workshop that are built. */
export const TOOLS = [
  {
    path: '/workshop/convert',
    name: 'Convert',
    about: 'Any value in every sensible unit at once, with the water and mercury references side by side.',
  },
  {
    path: '/workshop/expected',
    name: 'Expected values',
    about: 'Any range and signal: the table at any step, the stave, and the input that a reading stands for.',
  },
  {
    path: '/workshop/uncertainty',
    name: 'Uncertainty',
    about: 'A budget with the share of each component, the ratio and the risk, and Monte Carlo beside it.',
  },
] as const;
