/** Which trees a setting is for: the choice as typed, and the trees that it stands for. */
import type { Scope } from '../../core/design';
import { parseVlanRanges } from '../../core/standard';
import type { SolvedDesign, SolvedTree } from '../../core/trees';
import type { ScopeChoice } from './context';

export type ScopeResult = { ok: true; scope: Scope } | { ok: false; sentence: string };

/** The trees that a choice stands for while `of` is in view; a sentence when they cannot be read or are not in the design. */
export function scopeOf(choice: ScopeChoice, of: SolvedTree, solved: SolvedDesign): ScopeResult {
  const { vlan, instance } = of.tree;
  if (choice.kind === 'all' || (vlan === null && instance === null)) return { ok: true, scope: 'all' };
  if (choice.kind === 'this') return { ok: true, scope: vlan === null ? { instances: [instance!] } : [vlan] };
  if (instance !== null) return instancesIn(choice.text, solved);
  const parsed = parseVlanRanges(choice.text);
  if (!parsed.ok)
    return {
      ok: false,
      sentence: `'${parsed.part}' is not a VLAN: write numbers from 1 to 4094 and ranges such as 110-140,199.`,
    };
  const known = new Set(solved.topology.design.vlans.map((v) => v.number));
  const vlans = parsed.vlans.filter((v) => known.has(v));
  if (vlans.length === 0) return { ok: false, sentence: 'None of these VLANs is in the design.' };
  return { ok: true, scope: vlans };
}

/** MSTIDs as typed, those that the design has; 0 is the CIST. */
function instancesIn(text: string, solved: SolvedDesign): ScopeResult {
  const parts = text.split(/[,;\s]+/).filter((part) => part !== '');
  const known = new Set(solved.trees.flatMap((t) => t.tree.instance ?? []));
  const wrong = parts.find((part) => !/^\d+$/.test(part) || !known.has(Number(part)));
  if (wrong !== undefined || parts.length === 0)
    return {
      ok: false,
      sentence: `'${wrong ?? text}' is no instance of this design: it has ${[...known].join(', ')}.`,
    };
  return { ok: true, scope: { instances: parts.map(Number) } };
}
