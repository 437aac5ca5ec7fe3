'use client';
import TextField from '@mui/material/TextField';
import { isPerVlan } from '../../../core/design';
import type { Scope } from '../../../core/design';
import { parseVlanRanges } from '../../../core/standard';
import { useBench, useSession, useTree } from '../../shell/context';
import type { ScopeChoice } from '../../shell/context';

export type ScopeResult = { ok: true; scope: Scope } | { ok: false; sentence: string };

/** The trees that the choice stands for; a sentence when its VLANs cannot be read or are not in the design. */
export function useScope(): ScopeResult {
  const { scope } = useBench();
  const of = useTree();
  const design = useSession((s) => s.design);
  if (!isPerVlan(design.mode) || scope.kind === 'all' || !of || of.tree.vlan === null)
    return { ok: true, scope: 'all' };
  if (scope.kind === 'this') return { ok: true, scope: [of.tree.vlan] };
  const parsed = parseVlanRanges(scope.text);
  if (!parsed.ok)
    return {
      ok: false,
      sentence: `'${parsed.part}' is no VLAN: write numbers from 1 to 4094 and ranges such as 110-140,199.`,
    };
  const known = new Set(design.vlans.map((v) => v.number));
  const vlans = parsed.vlans.filter((v) => known.has(v));
  if (vlans.length === 0) return { ok: false, sentence: 'None of these VLANs is in the design.' };
  return { ok: true, scope: vlans };
}

/** Which trees a setting is for: the one in view, a list of VLANs, or all. */
export function ScopePicker() {
  const { scope, setScope } = useBench();
  const of = useTree();
  const mode = useSession((s) => s.design.mode);
  const result = useScope();
  if (!isPerVlan(mode) || !of || of.tree.vlan === null) return null;
  const choices: { choice: ScopeChoice; label: string }[] = [
    { choice: { kind: 'this' }, label: `VLAN ${of.tree.vlan}` },
    { choice: scope.kind === 'vlans' ? scope : { kind: 'vlans', text: `${of.tree.vlan}` }, label: 'some VLANs' },
    { choice: { kind: 'all' }, label: 'all trees' },
  ];
  return (
    <div className="scope">
      <div role="radiogroup" aria-label="Settings are for">
        <span className="quiet">settings for </span>
        {choices.map(({ choice, label }) => (
          <button
            key={choice.kind}
            className="tool"
            role="radio"
            aria-checked={scope.kind === choice.kind}
            onClick={() => setScope(choice)}
          >
            {label}
          </button>
        ))}
      </div>
      {scope.kind === 'vlans' && (
        <TextField
          fullWidth
          value={scope.text}
          onChange={(e) => setScope({ kind: 'vlans', text: e.target.value })}
          error={!result.ok}
          helperText={result.ok ? null : result.sentence}
          slotProps={{ htmlInput: { 'aria-label': 'VLANs that settings are for', className: 'mono' } }}
        />
      )}
    </div>
  );
}
