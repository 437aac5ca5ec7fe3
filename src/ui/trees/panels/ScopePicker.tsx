'use client';
import TextField from '@mui/material/TextField';
import type { Scope } from '../../../core/design';
import type { SolvedDesign } from '../../../core/trees';
import { parseVlanRanges } from '../../../core/standard';
import { OneOf } from '../../controls/OneOf';
import { useBench, useSession, useTree } from '../../session/context';
import type { ScopeChoice } from '../../session/context';

export type ScopeResult = { ok: true; scope: Scope } | { ok: false; sentence: string };

/** The trees that the choice stands for; a sentence when its VLANs cannot be read or are not in the design. */
export function useScope(): ScopeResult {
  const { scope } = useBench();
  const of = useTree();
  const solved = useSession((s) => s.solved);
  const { design } = solved.topology;
  if (scope.kind === 'all' || !of || (of.tree.vlan === null && of.tree.instance === null))
    return { ok: true, scope: 'all' };
  if (scope.kind === 'this')
    return { ok: true, scope: of.tree.vlan === null ? { instances: [of.tree.instance!] } : [of.tree.vlan] };
  if (of.tree.instance !== null) return instancesIn(scope.text, solved);
  const parsed = parseVlanRanges(scope.text);
  if (!parsed.ok)
    return {
      ok: false,
      sentence: `'${parsed.part}' is not a VLAN: write numbers from 1 to 4094 and ranges such as 110-140,199.`,
    };
  const known = new Set(design.vlans.map((v) => v.number));
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

/** Which trees a setting is for: the one in view, a list of VLANs, or all. */
export function ScopePicker() {
  const { scope, setScope } = useBench();
  const of = useTree();
  const result = useScope();
  if (!of || (of.tree.vlan === null && of.tree.instance === null)) return null;
  const [one, some, number] =
    of.tree.vlan !== null
      ? [`VLAN ${of.tree.vlan}`, 'some VLANs', of.tree.vlan]
      : [of.tree.instance === 0 ? 'the CIST' : of.tree.name, 'some instances', of.tree.instance];
  const choices: { choice: ScopeChoice; label: string }[] = [
    { choice: { kind: 'this' }, label: one },
    { choice: scope.kind === 'vlans' ? scope : { kind: 'vlans', text: `${number}` }, label: some },
    { choice: { kind: 'all' }, label: 'all trees' },
  ];
  return (
    <div className="scope">
      <OneOf
        label="Settings are for"
        lead={<span className="quiet">settings for </span>}
        options={choices.map(({ choice, label }) => ({ id: choice.kind, name: label }))}
        value={scope.kind}
        onPick={(kind) => setScope(choices.find((c) => c.choice.kind === kind)!.choice)}
      />
      {scope.kind === 'vlans' && (
        <TextField
          fullWidth
          value={scope.text}
          onChange={(e) => setScope({ kind: 'vlans', text: e.target.value })}
          error={!result.ok}
          helperText={result.ok ? null : result.sentence}
          slotProps={{
            htmlInput: {
              'aria-label': `${of.tree.vlan !== null ? 'VLANs' : 'Instances'} that settings are for`,
              className: 'mono',
            },
          }}
        />
      )}
    </div>
  );
}
