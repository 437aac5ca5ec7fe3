/** Trees and elements of a design by what an observed network calls them. */
import { bundlesOf, portsOf } from '../../design';
import type { Bundle, Design, ObservedEnd, Port, Switch } from '../../design';
import { COMMON_TREE, canonicalMac, parseTreeId } from '../../standard';
import type { SolvedDesign, SolvedTree } from '../../trees';

const first = (name: string): string => name.toLowerCase().split('.')[0]!;

/** A switch by its name, its name before the first dot, or its address. */
export function switchCalled(design: Design, name: string, mac: string | null): Switch | undefined {
  const address = mac === null ? canonicalMac(name) : mac;
  return (
    design.switches.find((s) => s.name.toLowerCase() === name.toLowerCase()) ??
    design.switches.find((s) => first(s.name) === first(name)) ??
    (address ? design.switches.find((s) => s.mac === address) : undefined)
  );
}

/** A port or bundle of a switch by its name in any case, or by its number as `#12`. */
export function elementCalled(design: Design, s: Switch, name: string): Port | Bundle | undefined {
  const all = [...portsOf(design, s.id), ...bundlesOf(design, s.id)];
  if (name.startsWith('#')) return all.find((e) => e.number === Number(name.slice(1)));
  return all.find((e) => e.name.toLowerCase() === name.toLowerCase());
}

export const endWords = ({ switch: s, port }: ObservedEnd): string => `${s} ${port}`;

const isCommon = (id: string): boolean => {
  const parts = parseTreeId(id);
  return parts?.kind === 'common' || parts?.kind === 'single';
};

/** A tree of a solved design as an observed network names it: the tree that all VLANs share has several names. */
export function treeCalled(solved: SolvedDesign, id: string): SolvedTree | undefined {
  return (
    solved.byId.get(id) ??
    (isCommon(id) || id === 'vlan-1'
      ? solved.trees.find((t) => (isCommon(id) ? isCommon(t.tree.id) : t.tree.id === COMMON_TREE))
      : undefined)
  );
}
