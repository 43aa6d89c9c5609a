/** What simulated cars and customers are called: invented throughout. */
export interface Kind {
  label: string;
  family: string;
  frequencyMHz: number;
  /** The first two digits of its sensors' IDs. */
  prefix: string;
  locates: boolean;
  size: string;
  frontKPa: number;
  rearKPa: number;
}

const kind = (
  label: string,
  [family, frequencyMHz, prefix]: [string, number, string],
  [size, frontKPa, rearKPa]: [string, number, number],
  locates = true,
): Kind => ({ label, family, frequencyMHz, prefix, locates, size, frontKPa, rearKPa });

export const kinds: readonly Kind[] = [
  kind('Corriente Vela', ['kestrel', 433.92, '4B'], ['215/55R17', 230, 220]),
  kind('Corriente Brisa', ['plover', 315, '6C'], ['185/65R15', 230, 230], false),
  kind('Ostrel Menta', ['kestrel', 433.92, '5A'], ['195/65R15', 220, 210]),
  kind('Ostrel Carga', ['heron', 433.92, '9D'], ['215/65R16C', 350, 400]),
  kind('Pelluca Sierra', ['heron', 433.92, '9E'], ['235/60R18', 240, 240]),
  kind('Pelluca Arriero', ['plover', 315, '6D'], ['255/70R16', 240, 260], false),
  kind('Tarn Velo', ['kestrel', 433.92, '4C'], ['205/60R16', 230, 230]),
];

export const customers = {
  first: [
    'Amaro',
    'Belinda',
    'Casimir',
    'Dorothea',
    'Elio',
    'Fenna',
    'Gaspard',
    'Hedda',
    'Ignace',
    'Jorunn',
    'Kaspar',
    'Leocadia',
    'Marek',
    'Nives',
    'Orlando',
    'Perpetua',
    'Quirin',
    'Rosalind',
    'Severin',
    'Tamsin',
    'Ulrika',
    'Viggo',
    'Wenda',
    'Ximena',
    'Yorick',
    'Zelda',
  ],
  last: [
    'Alderbrook',
    'Birchwater',
    'Coppergate',
    'Dunmarrow',
    'Elmstrand',
    'Fallowmere',
    'Greyfinch',
    'Hollowell',
    'Inkwell',
    'Juniper',
    'Kestlewood',
    'Lindwater',
    'Marlpit',
    'Nettlecombe',
    'Oxbow',
    'Pennywhistle',
    'Quillfeather',
    'Rushford',
    'Saltmarsh',
    'Thistledown',
    'Underhay',
    'Vellacott',
    'Wintergreen',
    'Yarrowby',
    'Zephyrine',
    'Ashcombe',
    'Bellwether',
    'Cloverley',
    'Dapplemere',
    'Easterling',
  ],
} as const;
