'use client';
import TextField from '@mui/material/TextField';
import { OneOf } from '../../controls/OneOf';
import { useBench, useSession, useTree } from '../../session/context';
import { scopeOf } from '../../session/scope';
import type { ScopeResult } from '../../session/scope';
import type { ScopeChoice } from '../../session/context';

/** The trees that the choice stands for; a sentence when its VLANs cannot be read or are not in the design. */
export function useScope(): ScopeResult {
  const { scope } = useBench();
  const of = useTree();
  const solved = useSession((s) => s.solved);
  return of ? scopeOf(scope, of, solved) : { ok: true, scope: 'all' };
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
