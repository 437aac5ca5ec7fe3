/** Trees and elements of a design by what an observed network calls them. */
import { bundlesOf, portsOf } from '../../design';
import type { Bundle, Design, ObservedEnd, Port, Switch } from '../../design';
import { switchCalled as calledSwitch } from '../../editing';
import { COMMON_TREE, parseTreeId } from '../../standard';
import type { SolvedDesign, SolvedTree } from '../../trees';

/** A switch as an observed network names it, with its address where that is known. */
export const switchCalled = (design: Design, name: string, mac: string | null): Switch | undefined =>
  calledSwitch(design, name, mac ?? undefined);

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
