import { bundleAt, bundleById, bundlesOf, portsOf } from '../../core/design';
import type { Design } from '../../core/design';
import type { Ref } from '../session/view';

/** Ports and bundles that the selection is about: of a switch all, of a link both ends. */
export function portsOfSelection(design: Design, selection: readonly Ref[]): ReadonlySet<string> {
  return new Set(
    selection.flatMap(({ kind, id }) => {
      switch (kind) {
        case 'link':
          return design.links
            .filter((l) => l.id === id)
            .flatMap((l) =>
              [l.a, l.b].flatMap((e) => ('port' in e ? [e.port, bundleAt(design, e.port)?.id ?? []].flat() : [])),
            );
        case 'switch':
          return [...portsOf(design, id), ...bundlesOf(design, id)].map((e) => e.id);
        case 'bundle':
          return [id, ...(bundleById(design, id)?.members ?? [])];
        case 'port':
          return [id];
        default:
          return [];
      }
    }),
  );
}
