'use client';
/** Cost, priority and speed of one port, each where it is read. */
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { costInForce, portPriorityInForce, setField, switchById } from '../../../core/design';
import type { Bundle, Port } from '../../../core/design';
import { COMMON_SPEEDS, PORT_PRIORITIES, grouped } from '../../../core/standard';
import { speedLabel } from '../../chart/ends';
import { costAction, portPriorityAction } from '../../session/actions';
import { useBench, useSession, useTree } from '../../session/context';
import { CostField, StepPicker, sourceWord } from './fields';
import { useScope } from './ScopePicker';

interface SettingProps {
  readonly element: Port | Bundle;
}

/** How a setting of one port is made in the chosen scope, or tried out. */
function useSetting() {
  const { edit, tryOut } = useBench();
  const scope = useScope();
  const look = ({ label, edits }: ReturnType<typeof costAction>) => void tryOut(label, edits);
  const apply = ({ label, edits }: ReturnType<typeof costAction>) => edit(label, edits);
  return { scope, look, apply };
}

export function PortCost({ element: e, usual }: SettingProps & { usual: number }) {
  const of = useTree()!;
  const design = useSession((s) => s.design);
  const { scope, look, apply } = useSetting();
  const owner = switchById(design, e.switch)!;
  const inForce = costInForce(design, e, of.tree, usual);
  return (
    <>
      <CostField
        key={e.id}
        label={`Cost of ${owner.name} ${e.name}`}
        inForce={inForce}
        scale={owner.costScale ?? design.costScale}
        disabled={!scope.ok}
        onTry={(value) => scope.ok && look(costAction(design, e, scope.scope, value))}
        onSet={(value) => scope.ok && apply(costAction(design, e, scope.scope, value))}
      />
      <small className="quiet">
        {sourceWord(inForce, 'by speed')}
        {inForce.source !== 'default' && inForce.source !== 'all-trees' && (
          <>, all trees: {e.cost === undefined ? `${grouped(usual)} by speed` : grouped(e.cost)}</>
        )}
      </small>
    </>
  );
}

export function PortPriority({ element: e }: SettingProps) {
  const of = useTree()!;
  const design = useSession((s) => s.design);
  const { scope, look, apply } = useSetting();
  const owner = switchById(design, e.switch)!;
  const inForce = portPriorityInForce(design, e, of.tree);
  return (
    <>
      <StepPicker
        label={`Port priority of ${owner.name} ${e.name}`}
        inForce={inForce}
        steps={PORT_PRIORITIES}
        disabled={!scope.ok}
        onTry={(value) => scope.ok && look(portPriorityAction(design, e, scope.scope, value))}
        onPick={(value) => scope.ok && apply(portPriorityAction(design, e, scope.scope, value))}
      />
      <small className="quiet">
        {sourceWord(inForce)}
        {inForce.source !== 'default' && inForce.source !== 'all-trees' && <>, all trees: {e.priority ?? 128}</>}
      </small>
    </>
  );
}

/** Speed of a port, picked from the usual ones; a bundle's is that of its members. A link runs at the lower of its ends. */
export function SpeedPicker({ element, rate }: { element: Port | Bundle; rate: number }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  if ('members' in element) return <span className="mono">{speedLabel(rate)}</span>;
  const name = `${switchById(design, element.switch)?.name} ${element.name}`;
  const speeds = [...new Set([...COMMON_SPEEDS, element.speed])].sort((a, b) => a - b);
  return (
    <>
      <Select
        value={String(element.speed)}
        onChange={(e) => {
          const speed = Number(e.target.value);
          edit(`Speed of ${name}: ${speedLabel(speed)}`, [setField('port', element.id, 'speed', speed)]);
        }}
        inputProps={{ 'aria-label': `Speed of ${name}` }}
        renderValue={(value) => <span className="mono">{speedLabel(Number(value))}</span>}
      >
        {speeds.map((speed) => (
          <MenuItem key={speed} value={String(speed)} className="mono">
            {speedLabel(speed)}
          </MenuItem>
        ))}
      </Select>
      {rate < element.speed && <small className="quiet">runs at {speedLabel(rate)}</small>}
    </>
  );
}
