/** What can be done to what is selected, as edits with the words that undo will show. */
import type { Bundle, Design, Edit, Port, Scope, Switch } from '../../core/design';
import {
  bundleById,
  hostById,
  linkAt,
  linkById,
  portById,
  portLabel,
  segmentById,
  setBridgePriority,
  setField,
  setPortCost,
  setPortPriority,
  switchById,
} from '../../core/design';
import { formatVlanRanges } from '../../core/standard';
import { makeRootOfEdits } from '../../core/trees';
import type { SolvedDesign } from '../../core/trees';
import type { Ref } from './view';

export interface Action {
  readonly label: string;
  readonly edits: readonly Edit[];
}

/** ` for VLAN 130`, ` for VLANs 110-120`, or nothing for all trees. */
export function scopeWords(scope: Scope): string {
  if (scope === 'all') return '';
  if ('instances' in scope) {
    const named = formatVlanRanges(scope.instances.filter((i) => i !== 0));
    if (!named) return ' for the CIST';
    return ` for ${scope.instances.length === 1 ? 'instance' : 'instances'} ${scope.instances.includes(0) ? '0,' : ''}${named}`;
  }
  return scope.length === 1 ? ` for VLAN ${scope[0]}` : ` for VLANs ${formatVlanRanges(scope)}`;
}

const many = (names: readonly string[], what: string) => (names.length === 1 ? names[0]! : `${names.length} ${what}`);

/** Bridge priority of one or many switches. */
export function priorityAction(switches: readonly Switch[], scope: Scope, value: number | null): Action {
  return {
    label: `Priority of ${many(
      switches.map((s) => s.name),
      'switches',
    )}${scopeWords(scope)}: ${value ?? 'default'}`,
    edits: switches.flatMap((s) => setBridgePriority(s, scope, value)),
  };
}

const kindOf = (port: Port | Bundle) => ('members' in port ? 'bundle' : 'port');
const endName = (design: Design, port: Port | Bundle) => `${switchById(design, port.switch)?.name} ${port.name}`;

export function costAction(design: Design, port: Port | Bundle, scope: Scope, value: number | null): Action {
  return {
    label: `Cost of ${endName(design, port)}${scopeWords(scope)}: ${value ?? 'by speed'}`,
    edits: setPortCost(kindOf(port), port, scope, value),
  };
}

/** The same cost on many ports; `portPriority` too. */
export function manyPortsAction(
  ports: readonly (Port | Bundle)[],
  what: 'cost' | 'priority',
  scope: Scope,
  value: number | null,
): Action {
  const set = what === 'cost' ? setPortCost : setPortPriority;
  const word = what === 'cost' ? 'Cost' : 'Port priority';
  const otherwise = what === 'cost' ? 'by speed' : 'default';
  return {
    label: `${word} of ${ports.length} ports${scopeWords(scope)}: ${value ?? otherwise}`,
    edits: ports.flatMap((port) => set(kindOf(port), port, scope, value)),
  };
}

export function portPriorityAction(design: Design, port: Port | Bundle, scope: Scope, value: number | null): Action {
  return {
    label: `Port priority of ${endName(design, port)}${scopeWords(scope)}: ${value ?? 'default'}`,
    edits: setPortPriority(kindOf(port), port, scope, value),
  };
}

/** Makes a switch root of the trees of a scope. Empty edits: it is already, on purpose. */
export function makeRootAction(solved: SolvedDesign, scope: Scope, switchId: string): Action {
  const of =
    scope !== 'all' ? scopeWords(scope).replace(' for ', ' of ') : solved.trees.length > 1 ? ' of all trees' : '';
  return {
    label: `Make ${switchById(solved.topology.design, switchId)?.name} root${of}`,
    edits: makeRootOfEdits(solved, scope, switchId),
  };
}

interface Switchable {
  readonly kind: 'switch' | 'port' | 'link' | 'segment';
  readonly id: string;
  readonly field: 'off' | 'down';
  readonly failed: boolean;
  readonly name: string;
}

/** The thing that fails when a reference is failed: a bundle fails as all its links, a port as its link. */
function switchables(design: Design, ref: Ref): Switchable[] {
  const link = (id: string | undefined): Switchable[] => {
    const found = id === undefined ? undefined : linkById(design, id);
    if (!found) return [];
    const ends = [found.a, found.b].map((e) =>
      'port' in e ? portLabel(design, e.port) : (hostById(design, e.host)?.name ?? ''),
    );
    return [
      { kind: 'link', id: found.id, field: 'down', failed: found.down === true, name: `link ${ends.join(' – ')}` },
    ];
  };
  switch (ref.kind) {
    case 'switch': {
      const s = switchById(design, ref.id);
      return s ? [{ kind: 'switch', id: s.id, field: 'off', failed: s.off === true, name: s.name }] : [];
    }
    case 'link':
      return link(ref.id);
    case 'port': {
      const own = link(linkAt(design, ref.id)?.id);
      const port = portById(design, ref.id);
      if (own.length > 0 || !port) return own;
      return [
        { kind: 'port', id: port.id, field: 'down', failed: port.down === true, name: portLabel(design, port.id) },
      ];
    }
    case 'bundle':
      return (bundleById(design, ref.id)?.members ?? []).flatMap((m) => link(linkAt(design, m)?.id));
    case 'segment': {
      const segment = segmentById(design, ref.id);
      return segment
        ? [
            {
              kind: 'segment',
              id: segment.id,
              field: 'down',
              failed: segment.down === true,
              name: `segment ${segment.name}`,
            },
          ]
        : [];
    }
    case 'host':
      return link(design.links.find((l) => [l.a, l.b].some((e) => 'host' in e && e.host === ref.id))?.id);
    case 'note':
      return [];
  }
}

/** Fails everything selected, or restores it when all of it has failed already. */
export function failAction(design: Design, refs: readonly Ref[]): Action & { readonly restores: boolean } {
  const targets = refs.flatMap((ref) => switchables(design, ref));
  const restores = targets.length > 0 && targets.every((t) => t.failed);
  const touched = targets.filter((t) => t.failed === restores);
  const verb = restores ? 'Restore' : 'Fail';
  return {
    restores,
    label: `${verb} ${many(
      touched.map((t) => t.name),
      'things',
    )}`,
    edits: touched.map((t) => setField(t.kind, t.id, t.field as 'id', restores ? null : true)),
  };
}
