/** A number the engine rests on: never without where it comes from and why it is what it is. */
export interface Figure {
  readonly value: number;
  /**
   * `judgement`: chosen by us, open to better knowledge. `practice`: common practice of the trade, no
   * source. `contract`: follows from what the finding is defined to be. `physics`: follows from a formula.
   */
  readonly basis: 'judgement' | 'practice' | 'contract' | 'physics';
  readonly why: string;
}

const figure =
  (basis: Figure['basis']) =>
  (value: number, why: string): Figure => ({ value, basis, why });

export const judged = figure('judgement');
export const practice = figure('practice');
export const contract = figure('contract');
export const physics = figure('physics');

/** The same tree with the plain numbers in it. */
export type Numbers<Tree> = Tree extends Figure
  ? number
  : { readonly [Key in keyof Tree]: Numbers<Tree[Key]> };

const isFigure = (node: unknown): node is Figure =>
  typeof node === 'object' && node !== null && 'basis' in node && 'value' in node;

/** The numbers of a tree of figures, to compute with. */
export function numbersOf<Tree extends object>(tree: Tree): Numbers<Tree> {
  if (isFigure(tree)) return tree.value as Numbers<Tree>;
  const entries = Object.entries(tree).map(([key, node]) => [key, numbersOf(node as object)] as const);
  return (
    Array.isArray(tree) ? entries.map(([, node]) => node) : Object.fromEntries(entries)
  ) as Numbers<Tree>;
}

/** Every figure of a tree with its path: "answers.pulsed". */
export function figuresIn(tree: object, path = ''): { path: string; figure: Figure }[] {
  if (isFigure(tree)) return [{ path, figure: tree }];
  return Object.entries(tree).flatMap(([key, node]) =>
    figuresIn(node as object, path === '' ? key : `${path}.${key}`),
  );
}
