'use client';
import { costInForce, portPriorityInForce, switchById } from '../../../core/design';
import type { InForce } from '../../../core/design';
import { PORT_PRIORITIES } from '../../../core/standard';
import { ROLE } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { manyPortsAction } from '../../session/actions';
import type { Ref } from '../../session/view';
import { useBench, useSession, useTree } from '../../session/context';
import { farOf } from './ends';
import { CostField, StepPicker } from './fields';
import { ScopePicker, useScope } from './ScopePicker';

/** Logical ports that a selection speaks of; of a link the end that receives, since only its cost counts. */
function portsIn(solved: SolvedDesign, of: SolvedTree, selection: readonly Ref[]): number[] {
  const { design, portIndex } = solved.topology;
  const found = new Set<number>();
  for (const { kind, id } of selection) {
    if (kind === 'port' || kind === 'bundle') {
      const port = portIndex.get(id);
      if (port !== undefined) found.add(port);
    }
    if (kind !== 'link') continue;
    const link = design.links.find((l) => l.id === id);
    const end = link && ('port' in link.a ? link.a.port : 'port' in link.b ? link.b.port : null);
    const near = end ? portIndex.get(end) : undefined;
    if (near === undefined) continue;
    const far = farOf(solved, near);
    found.add(of.outcome.role[near] === ROLE.designated && far?.kind === 'port' ? far.index : near);
  }
  return [...found];
}

const areAlike = (values: readonly InForce[]): boolean => values.every((v) => v.value === values[0]!.value);
const common = (values: readonly InForce[]): InForce =>
  areAlike(values) ? values[0]! : { value: values[0]!.value, source: 'default' };

/** `of all`, or the least and the greatest value. */
const rangeWords = (values: readonly InForce[]): string =>
  areAlike(values)
    ? 'of all'
    : `now ${Math.min(...values.map((v) => v.value))} to ${Math.max(...values.map((v) => v.value))}`;

/** Cost and priority of many ports in one step, with what would move shown while it is typed. */
export function ManyPorts({ selection }: { selection: readonly Ref[] }) {
  const { edit, tryOut } = useBench();
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const scope = useScope();
  const { design, ports, defaultCost } = solved.topology;
  const found = portsIn(solved, of, selection);
  if (found.length === 0) return null;
  const elements = found.map((p) => ports[p]!.element);
  const costs = found.map((p, i) => costInForce(design, elements[i]!, of.tree, defaultCost[p]!));
  const priorities = elements.map((e) => portPriorityInForce(design, e, of.tree));
  const scales = elements.map((e) => switchById(design, e.switch)?.costScale ?? design.costScale);
  const act = (what: 'cost' | 'priority', value: number | null, run: typeof edit | typeof tryOut) => {
    if (!scope.ok) return;
    const { label, edits } = manyPortsAction(elements, what, scope.scope, value);
    run(label, edits);
  };
  return (
    <>
      <ScopePicker />
      <p className="quiet small">
        {elements.map((e) => `${switchById(design, e.switch)?.name} ${e.name}`).join(', ')}
        {selection.some((r) => r.kind === 'link') && ': at each link, the end whose cost counts in this tree'}
      </p>
      <div className="setting">
        <span>
          Port cost <small className="quiet">{rangeWords(costs)}</small>
        </span>
        <div style={{ width: 150 }}>
          <CostField
            key={found.join()}
            label={`Cost of ${found.length} ports`}
            inForce={common(costs)}
            scale={scales.includes('short') ? 'short' : 'long'}
            disabled={!scope.ok}
            onTry={(value) => act('cost', value, tryOut)}
            onSet={(value) => act('cost', value, edit)}
          />
        </div>
      </div>
      <div className="setting">
        <span>Port priority</span>
        <StepPicker
          label={`Port priority of ${found.length} ports`}
          inForce={common(priorities)}
          mixed={!areAlike(priorities)}
          steps={PORT_PRIORITIES}
          disabled={!scope.ok}
          onTry={(value) => act('priority', value, tryOut)}
          onPick={(value) => act('priority', value, edit)}
        />
      </div>
    </>
  );
}
