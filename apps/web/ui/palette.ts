/** The colours, once for the interface and once for the printed certificate. */
export interface Palette {
  readonly paper: string;
  readonly sheet: string;
  readonly ink: string;
  readonly muted: string;
  readonly rule: string;
  readonly now: string;
  readonly wash: string;
  readonly within: string;
  readonly adjust: string;
  readonly outside: string;
  readonly undecided: string;
  /** Of a drawing: what a vessel holds. */
  readonly liquid: string;
}

export const PAPER: Palette = {
  paper: '#f3f2ed',
  sheet: '#ffffff',
  ink: '#16202b',
  muted: '#525d68',
  rule: '#cdc8ba',
  now: '#9a5b00',
  wash: '#fff4dc',
  within: '#1b6b4f',
  adjust: '#8a5a00',
  outside: '#a3211f',
  undecided: '#6a3d9a',
  liquid: '#d3dce4',
};

export const NIGHT: Palette = {
  paper: '#11151a',
  sheet: '#191f26',
  ink: '#e9e7e0',
  muted: '#a9b1ba',
  rule: '#3c4651',
  now: '#f2b44f',
  wash: '#352a17',
  within: '#63cda2',
  adjust: '#e6b450',
  outside: '#ff948b',
  undecided: '#c8a6f2',
  liquid: '#2f3d4b',
};
