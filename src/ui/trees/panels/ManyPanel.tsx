'use client';
import Button from '@mui/material/Button';
import { priorityInForce, switchById } from '../../../core/design';
import type { InForce } from '../../../core/design';
import { BRIDGE_PRIORITIES } from '../../../core/standard';
import { failAction, priorityAction } from '../../session/actions';
import type { Ref } from '../../session/view';
import { useBench, useSession, useTree } from '../../session/context';
import { arePlaces } from '../usePath';
import { StepPicker } from './fields';
import { GroupField } from './GroupField';
import { ManyPorts } from './ManyPorts';
import { ScopePicker, useScope } from './ScopePicker';

/** Many things selected: the same change on all of them, in one step. */
export function ManyPanel({ selection }: { selection: readonly Ref[] }) {
  const { edit, select, setView, tryOut } = useBench();
  const design = useSession((s) => s.design);
  const of = useTree()!;
  const scope = useScope();
  const switches = selection.flatMap((r) => (r.kind === 'switch' ? (switchById(design, r.id) ?? []) : []));
  const values = switches.map((s) => priorityInForce(design, s, of.tree));
  const common: InForce | undefined = values.every((v) => v.value === values[0]?.value) ? values[0] : undefined;
  const fail = failAction(design, selection);
  return (
    <>
      <h2>{selection.length} selected</h2>
      <p className="quiet">{switches.map((s) => s.name).join(', ')}</p>
      <section className="settings" aria-label="Settings">
        {switches.length > 0 && (
          <>
            <ScopePicker />
            <div className="setting">
              <span>
                Bridge priority{' '}
                <small className="quiet">
                  {common
                    ? 'of all'
                    : `now from ${Math.min(...values.map((v) => v.value))} to ${Math.max(...values.map((v) => v.value))}`}
                </small>
              </span>
              <StepPicker
                label={`Bridge priority of ${switches.length} switches`}
                inForce={common ?? values[0]!}
                mixed={!common}
                steps={BRIDGE_PRIORITIES}
                disabled={!scope.ok}
                onTry={(value) => {
                  if (!scope.ok) return;
                  const { label, edits } = priorityAction(switches, scope.scope, value);
                  tryOut(label, edits);
                }}
                onPick={(value) => {
                  if (!scope.ok) return;
                  const { label, edits } = priorityAction(switches, scope.scope, value);
                  edit(label, edits);
                }}
              />
            </div>
          </>
        )}
        {switches.length > 0 && <GroupField key={switches.map((s) => s.id).join()} switches={switches} />}
        <ManyPorts selection={selection} />
        <div className="buttons">
          {fail.edits.length > 0 && (
            <Button onClick={() => edit(fail.label, fail.edits)}>{fail.restores ? 'Restore all' : 'Fail all'}</Button>
          )}
          {arePlaces(selection) && <Button onClick={() => setView({ path: true })}>Path between them</Button>}
          <Button onClick={() => select(null)}>Clear the selection</Button>
        </div>
      </section>
    </>
  );
}
