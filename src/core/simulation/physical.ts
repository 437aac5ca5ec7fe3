/** What is under the bridge ports: physical ports and the ends of bundles. */
import { bundleAt } from '../design';
import { changeEnd } from '../protocols/lacp';
import { bundleLacpEnd, hostLacpEnd, portsOfHost } from '../network';
import { startEnd } from '../protocols/lacp';
import { endWithoutCarrier } from './bundle-exchange';
import type { Way, World } from './network-state';

const NO_WAY: Way = { ends: [], link: null, end: 'a' };

/** Ends of bundles at switches and hosts; those that were there go on if their settings are as before. */
export function addBundleEnds(w: World): void {
  const { design } = w.plan;
  const before = new Map(w.bundleEnds);
  w.bundleEnds.clear();
  for (const bundle of design.bundles) {
    const settings = endWithoutCarrier(bundleLacpEnd(design, bundle));
    const what = {
      bundle,
      port: w.bridgePorts.get(bundle.id) ?? null,
      members: bundle.members,
      individual: settings.individual,
    };
    const old = before.get(bundle.id);
    if (!old?.end || old.bundle?.kind !== bundle.kind) {
      w.bundleEnds.set(bundle.id, {
        ...what,
        end: bundle.kind === 'static' ? null : startEnd(settings),
        wakeAt: Infinity,
      });
      continue;
    }
    const bundleEnd = Object.assign(old, what);
    w.bundleEnds.set(bundle.id, bundleEnd);
    if (JSON.stringify(withoutLight(old.end.settings)) === JSON.stringify(withoutLight(settings))) continue;
    bundleEnd.end = changeEnd(old.end, settings);
    // What goes on may be chosen otherwise among other members.
    bundleEnd.wakeAt = w.now;
    w.queue.push(w.now, { kind: 'lacp', bundleEnd });
  }
  addHostEnds(w);
}

/** Ends at hosts: a host with other cables starts again, one that is gone is forgotten. */
function addHostEnds(w: World): void {
  const { design } = w.plan;
  const bonded = design.hosts.filter((h) => h.bond === 'lacp-active' || h.bond === 'lacp-passive');
  for (const id of w.hostBundleEnds.keys()) if (!bonded.some((h) => h.id === id)) w.hostBundleEnds.delete(id);
  for (const host of bonded) {
    const ports = portsOfHost(design, host.id);
    const settings = endWithoutCarrier(hostLacpEnd(design, host, ports));
    const old = w.hostBundleEnds.get(host.id);
    const same = old?.end && JSON.stringify(withoutLight(old.end.settings)) === JSON.stringify(withoutLight(settings));
    if (same && old.members.join('\n') === ports.join('\n')) continue;
    w.hostBundleEnds.set(host.id, {
      bundle: null,
      port: null,
      members: ports,
      individual: true,
      end: startEnd(settings),
      wakeAt: Infinity,
    });
  }
}

const withoutLight = (s: { ports: readonly { up: boolean }[] }) => ({
  ...s,
  ports: s.ports.map((p) => ({ ...p, up: false })),
});

/** Physical ports, each with the bundle it is configured into. */
export function addPhysical(w: World): void {
  const { design } = w.plan;
  const gone = new Set(w.physical.keys());
  for (const port of design.ports) {
    const bundle = bundleAt(design, port.id);
    const own = w.bridgePorts.get(port.id)!;
    const now = {
      node: own.node,
      number: port.number,
      own,
      bundleEnd: bundle ? (w.bundleEnds.get(bundle.id) ?? null) : null,
      attached: null,
      held: false,
      lan: -1,
    };
    const old = w.physical.get(port.id);
    gone.delete(port.id);
    // The same port as before: what was worked out about it is compared with how it stands now.
    if (old) Object.assign(old, now);
    else w.physical.set(port.id, { id: port.id, ...now, carrier: false, way: NO_WAY, keepalives: null, takes: null });
  }
  for (const id of gone) w.physical.delete(id);
}
