/** What is under the bridge ports: physical ports and the ends of bundles. */
import { bundleAt, linksOfHost } from '../design';
import { bundleEnd, hostEnd, startLag } from './lag';
import type { World } from './world';

/** Ends of bundles at switches and hosts; those that are set as before go on as they stand. */
export function addLags(w: World): void {
  const { design } = w.plan;
  const before = new Map(w.lags);
  w.lags.clear();
  for (const bundle of design.bundles) {
    const settings = bundleEnd(design, bundle);
    const old = before.get(bundle.id);
    // An end that is set as before goes on as it stands.
    const same = old?.end && JSON.stringify(withoutLight(old.end.settings)) === JSON.stringify(withoutLight(settings));
    const what = {
      bundle,
      port: w.bridgePorts.get(bundle.id) ?? null,
      members: bundle.members,
      individual: settings.individual,
    };
    // With its timers, which are due as they were.
    if (same) w.lags.set(bundle.id, Object.assign(old, what));
    else
      w.lags.set(bundle.id, { ...what, end: bundle.kind === 'static' ? null : startLag(settings), wakeAt: Infinity });
  }
  for (const host of design.hosts) {
    if ((host.bond !== 'lacp-active' && host.bond !== 'lacp-passive') || w.hostLags.has(host.id)) continue;
    const ports = linksOfHost(design, host.id).flatMap((l) => [l.a, l.b].flatMap((e) => ('port' in e ? [e.port] : [])));
    w.hostLags.set(host.id, {
      bundle: null,
      port: null,
      members: ports,
      individual: true,
      end: startLag(hostEnd(design, host, ports)),
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
  const before = new Map(w.physical);
  w.physical.clear();
  for (const port of design.ports) {
    const bundle = bundleAt(design, port.id);
    const own = w.bridgePorts.get(port.id)!;
    const old = before.get(port.id);
    w.physical.set(port.id, {
      id: port.id,
      node: own.node,
      number: port.number,
      own,
      lag: bundle ? (w.lags.get(bundle.id) ?? null) : null,
      carrier: old?.carrier ?? false,
      attached: null,
      held: false,
    });
  }
}
