'use client';
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { pairOf, priorityInForce, setField, switchById } from '../../../core/design';
import { BRIDGE_PRIORITIES, bridgeIdWords, formatBridgeId, grouped } from '../../../core/standard';
import { TreeReader, explainSwitch, remainingHops, roleAt, settledState, stepCost } from '../../../core/trees';
import type { SolvedDesign, SolvedTree } from '../../../core/trees';
import { failAction, makeRootAction, priorityAction } from '../../session/actions';
import { useBench, useSession, useTree } from '../../session/context';
import { StepPicker, sourceWord } from './fields';
import { BUNDLE_COST_WORDS, MODE_WORDS } from '../../../core/messages';
import { Choice } from '../../controls/DesignSettings';
import { Ledger } from './Ledger';
import { RoleMark } from '../../controls/RoleMark';
import { GroupField } from './GroupField';
import { SwitchGuards } from './SwitchGuards';
import { UnlikeOthers } from './UnlikeOthers';
import { ScopePicker, useScope } from './ScopePicker';
import { farLabel } from './ends';
import { Term } from '../../controls/Term';
import { portsOfBridge } from '../../../core/network';
import styles from './SwitchPanel.module.css';

/** A switch in the tree in view: identity, way to the root, priority, ports, why. */
export function SwitchPanel({ id }: { id: string }) {
  const solved = useSession((s) => s.solved);
  const of = useTree()!;
  const { design, bridgeIndex } = solved.topology;
  const s = switchById(design, id)!;
  const bridge = bridgeIndex.get(id)!;
  const reader = new TreeReader(solved, of);
  const ledger = useMemo(() => explainSwitch(solved, of, bridge), [solved, of, bridge]);

  return (
    <>
      <h2>{s.name}</h2>
      <p className="mono quiet">{[s.mac, s.tier].filter(Boolean).join(' · ')}</p>
      {solved.topology.actsAs.some((acts, b) => acts !== b && [acts, b].includes(bridge)) && pairOf(design, id) && (
        <p className="quiet">
          One of pair {reader.bridgeName(bridge)}, domain {pairOf(design, id)!.domain}: one bridge to all others.
        </p>
      )}
      <dl className="facts">
        <div>
          <dt>
            <Term id="bridgeId">bridge identifier</Term>
          </dt>
          <dd className="mono" title={`hexadecimal ${formatBridgeId(reader.bridgeId(bridge))}`}>
            {bridgeIdWords(reader.bridgeId(bridge))}
          </dd>
        </div>
        <Way solved={solved} of={of} bridge={bridge} />
        <RegionFacts solved={solved} of={of} bridge={bridge} />
      </dl>
      <Ledger ledger={ledger} />
      <UnlikeOthers id={id} />
      <Settings of={of} id={id} />
      <PortRows of={of} bridge={bridge} />
    </>
  );
}

/** Priority in the scope that is chosen, and what holds for the switch in every tree. */
function Settings({ of, id }: { of: SolvedTree; id: string }) {
  const { edit, tryOut } = useBench();
  const solved = useSession((s) => s.solved);
  const scope = useScope();
  const { design, bridgeIndex } = solved.topology;
  const s = switchById(design, id)!;
  const takesPart = of.outcome.root[bridgeIndex.get(id)!]! >= 0;
  const makeRoot = scope.ok ? makeRootAction(solved, scope.scope, id) : null;
  const inForce = priorityInForce(design, s, of.tree);
  const apply = ({ label, edits }: { label: string; edits: Parameters<typeof edit>[1] }) => edit(label, edits);
  const fail = failAction(design, [{ kind: 'switch', id }]);
  return (
    <section className="settings" aria-label="Settings">
      <ScopePicker />
      <div className="setting">
        <span>
          Bridge priority <small className="quiet">{sourceWord(inForce)}</small>
        </span>
        <StepPicker
          label="Bridge priority"
          inForce={inForce}
          steps={BRIDGE_PRIORITIES}
          disabled={!scope.ok}
          onTry={(value) => {
            if (!scope.ok) return;
            const { label, edits } = priorityAction([s], scope.scope, value);
            tryOut(label, edits);
          }}
          onPick={(value) => scope.ok && apply(priorityAction([s], scope.scope, value))}
        />
      </div>
      <SwitchChoices id={id} />
      <GroupField key={`group ${id}`} switches={[s]} />
      <SwitchGuards id={id} />
      {of.tree.vlan !== null && s.vlanPriority && (
        <p className="quiet small">
          Set for single VLANs:{' '}
          <span className="mono">
            {Object.entries(s.vlanPriority)
              .map(([vlan, p]) => `${vlan}: ${p}`)
              .slice(0, 12)
              .join(', ')}
            {Object.keys(s.vlanPriority).length > 12 && ' …'}
          </span>
        </p>
      )}
      <div className="buttons">
        <Button
          disabled={!makeRoot || makeRoot.edits.length === 0 || !takesPart}
          title={makeRoot?.label}
          onClick={() => makeRoot && apply(makeRoot)}
        >
          Make root
        </Button>
        <Button onClick={() => apply(fail)}>{fail.restores ? 'Switch on' : 'Switch off'}</Button>
      </div>
    </section>
  );
}

/** Settings with a few values each. */
function SwitchChoices({ id }: { id: string }) {
  const { edit } = useBench();
  const s = useSession((state) => switchById(state.design, id)!);
  return (
    <>
      <Choice
        label="Cost scale"
        value={s.costScale ?? 'design'}
        options={{ design: 'as the design', long: '32-bit', short: '16-bit' }}
        onPick={(value, words) =>
          edit(`Cost scale of ${s.name}: ${words}`, [
            setField('switch', id, 'costScale', value === 'design' ? null : value),
          ])
        }
      />
      <Choice
        label="Bundle cost by the rate"
        value={s.bundleCost ?? 'design'}
        options={{ design: 'as the design', ...BUNDLE_COST_WORDS }}
        onPick={(value, words) =>
          edit(`Bundle cost of ${s.name}: ${words}`, [
            setField('switch', id, 'bundleCost', value === 'design' ? null : value),
          ])
        }
      />
      <Choice
        label="Spanning tree"
        value={s.protocol ?? 'design'}
        options={{ design: 'as the design', ...MODE_WORDS }}
        onPick={(value, words) =>
          edit(`Spanning tree of ${s.name}: ${words}`, [
            setField('switch', id, 'protocol', value === 'design' ? null : value),
          ])
        }
      />
    </>
  );
}

function PortRows({ of, bridge }: { of: SolvedTree; bridge: number }) {
  const { select } = useBench();
  const solved = useSession((s) => s.solved);
  return (
    <table className="rows">
      <caption>Ports</caption>
      <thead>
        <tr>
          <th scope="col">port</th>
          <th scope="col">to</th>
          <th scope="col">role</th>
          <th scope="col">state</th>
          <th scope="col" className="number">
            cost
          </th>
        </tr>
      </thead>
      <tbody>
        {[...portsOfBridge(solved.topology, bridge)].map((port) => {
          const { element, kind } = solved.topology.ports[port]!;
          const role = roleAt(of, port);
          return (
            <tr key={element.id} className={role === 'none' ? 'quiet' : undefined}>
              <th scope="row">
                <button
                  className="plain"
                  onClick={() => select({ kind: kind === 'bundle' ? 'bundle' : 'port', id: element.id })}
                >
                  {element.name}
                </button>
              </th>
              <td>{farLabel(solved, port)}</td>
              <td className={styles.roleCell}>
                <RoleMark role={role} /> {role === 'none' ? 'not in tree' : role}
              </td>
              <td>{role === 'none' ? '' : settledState(role)}</td>
              <td className="number mono">{role === 'none' ? '' : grouped(stepCost(of, port))}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What the vectors of the CIST and of instances hold in addition: costs outside and inside, regional root, hops left. */
function RegionFacts({ solved, of, bridge }: { solved: SolvedDesign; of: SolvedTree; bridge: number }) {
  const { tree, outcome } = of;
  const { cist } = outcome;
  if (tree.vlan !== null || tree.instance === null || outcome.root[bridge]! < 0) return null;
  if (cist && cist.region[bridge]! < 0) return null;
  const regional = cist ? cist.regionalRoot[bridge]! : outcome.root[bridge]!;
  const hops = remainingHops(of, bridge);
  return (
    <>
      {cist && (
        <div>
          <dt>outside / inside</dt>
          <dd className="mono">
            {grouped(cist.external[bridge]!)} / {grouped(cist.internal[bridge]!)}
          </dd>
        </div>
      )}
      <div>
        <dt>
          <Term id="regionalRoot">regional root</Term>
        </dt>
        <dd>{regional === bridge ? 'itself' : solved.topology.design.switches[regional]!.name}</dd>
      </div>
      <div>
        <dt>
          <Term id="hops">hops left</Term>
        </dt>
        <dd className={hops > 0 ? 'mono' : 'mono alarm'}>{hops > 0 ? hops : `${hops}: the region is too deep`}</dd>
      </div>
    </>
  );
}

/** Root path cost, root port and next hop. */
function Way({ solved, of, bridge }: { solved: SolvedDesign; of: SolvedTree; bridge: number }) {
  const { topology } = solved;
  if (of.outcome.root[bridge]! < 0)
    return (
      <div>
        <dt>in this tree</dt>
        <dd>not in tree</dd>
      </div>
    );
  const port = of.outcome.rootPort[bridge]!;
  if (port < 0)
    return (
      <div>
        <dt>
          <Term id="rootPathCost">root path cost</Term>
        </dt>
        <dd className="mono">0, it is the root</dd>
      </div>
    );
  const next = topology.portBridge[of.outcome.designatedPort[of.topology.portLan[port]!]!]!;
  return (
    <>
      <div>
        <dt>
          <Term id="rootPathCost">root path cost</Term>
        </dt>
        <dd className="mono">{grouped(of.outcome.rootPathCost[bridge]!)}</dd>
      </div>
      <div>
        <dt>
          <Term id="rootPort">root port</Term>
        </dt>
        <dd>{topology.ports[port]!.element.name}</dd>
      </div>
      <div>
        <dt>
          <Term id="nextHop">next hop</Term>
        </dt>
        <dd>{topology.design.switches[next]!.name}</dd>
      </div>
    </>
  );
}
