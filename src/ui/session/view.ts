/** What is looked at: tree, selection, arrangement. Kept in the address, so that a link opens the same view. */

/** Switches where they were put, or as far down as the tree in view costs them. */
export type Arrangement = 'cabling' | 'depth';

export type Ref = {
  readonly kind: 'switch' | 'host' | 'port' | 'bundle' | 'link' | 'segment' | 'note';
  readonly id: string;
};

export interface View {
  readonly tree: string | null;
  readonly selection: readonly Ref[];
  /** Whether the way between the two places that are selected was asked for. */
  readonly path: boolean;
  readonly arrangement: Arrangement;
  /** VLAN laid over the cabling; null for none. */
  readonly vlan: number | null;
  /** How the trees are looked at: one on the chart, or all of them on a board. */
  readonly board: Board;
  /** What the panel beside shows. */
  readonly panel: 'selection' | 'goals';
  /** How a large drawing is folded; auto: until it can be read. */
  readonly fold: FoldChoice;
  /** Folds that were opened. Not kept in the address. */
  readonly open: readonly string[];
}

export const FOLD_CHOICES = ['auto', 'none', 'alike', 'groups', 'groups-alike'] as const;
export type FoldChoice = (typeof FOLD_CHOICES)[number];

export const BOARDS = [
  { id: 'chart', name: 'Chart' },
  { id: 'roots', name: 'Roots' },
  { id: 'link-use', name: 'Link use' },
  { id: 'instances', name: 'Instances' },
  { id: 'compare', name: 'Compare' },
  { id: 'predict', name: 'Predict' },
] as const;
export type Board = (typeof BOARDS)[number]['id'];

export const NO_SELECTION: readonly Ref[] = [];

const KINDS = ['switch', 'host', 'port', 'bundle', 'link', 'segment', 'note'];
const refText = ({ kind, id }: Ref) => `${kind}~${id}`;

/** `switch~gate` */
export const sameRef = (a: Ref, b: Ref): boolean => a.kind === b.kind && a.id === b.id;

function readRef(text: string): Ref | null {
  const cut = text.indexOf('~');
  const kind = text.slice(0, cut);
  return KINDS.includes(kind) ? ({ kind, id: text.slice(cut + 1) } as Ref) : null;
}

/** The view that an address asks for; what it does not say is the default. */
export function readView(params: URLSearchParams): View {
  return {
    tree: params.get('tree'),
    selection: params.getAll('sel').flatMap((text) => readRef(text) ?? []),
    path: params.has('path'),
    arrangement: params.get('view') === 'cabling' ? 'cabling' : 'depth',
    vlan: /^[1-9]\d{0,3}$/.test(params.get('vlan') ?? '') ? Number(params.get('vlan')) : null,
    board: BOARDS.find((b) => b.id === params.get('board'))?.id ?? 'chart',
    panel: params.get('panel') === 'goals' ? 'goals' : 'selection',
    fold: FOLD_CHOICES.find((f) => f === params.get('fold')) ?? 'auto',
    open: [],
  };
}

/** The address of a view in a variant. */
export function viewAddress(designId: string, stage: string, variantId: string, view: View): string {
  const params = new URLSearchParams({ variant: variantId });
  if (view.tree) params.set('tree', view.tree);
  if (view.arrangement === 'cabling') params.set('view', 'cabling');
  if (view.board !== 'chart') params.set('board', view.board);
  if (view.panel === 'goals') params.set('panel', 'goals');
  if (view.fold !== 'auto') params.set('fold', view.fold);
  if (view.path) params.set('path', '1');
  if (view.vlan !== null) params.set('vlan', String(view.vlan));
  for (const ref of view.selection) params.append('sel', refText(ref));
  return `/d/${encodeURIComponent(designId)}/${stage}?${params}`;
}
