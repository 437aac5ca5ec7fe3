/** A bundle of what is selected; where that is none, the ones that can be made of it. */
import { bundleLinks, bundleOffers, linkAt, linksOfHost } from '../../core/design';
import type { BundleOffer, Design, Edit } from '../../core/design';
import type { Bench } from '../session/context';
import { newId } from '../session/new-id';
import type { Ref } from '../session/view';

/** Cables that are meant: of a port its own, of a host all. */
function cablesOf(design: Design, selection: readonly Ref[]): string[] {
  const ids = selection.flatMap((r) => {
    if (r.kind === 'link') return [r.id];
    if (r.kind === 'port') return linkAt(design, r.id)?.id ?? [];
    return r.kind === 'host' ? linksOfHost(design, r.id).map((l) => l.id) : [];
  });
  return [...new Set(ids)];
}

const OFFER: Record<BundleOffer['kind'], (n: number) => string> = {
  'made-alike': (n) => `Make all ${n} alike and bundle them`,
  alike: (n) => `Bundle the ${n} that are alike`,
};

export function bundleSelected(bench: Bench): void {
  const { design } = bench.session.store.getState();
  const links = cablesOf(design, bench.view.selection);
  const make = (edits: readonly Edit[]) => {
    const first = edits.find((e) => e.type === 'add' && e.kind === 'bundle');
    if (bench.edit('Bundle the selected cables', edits) && first?.type === 'add')
      bench.select({ kind: 'bundle', id: first.value.id });
  };
  const result = bundleLinks(design, links, newId);
  if (result.ok) return make(result.edits);
  const [action, orElse] = bundleOffers(design, links, newId).map((offer) => ({
    label: OFFER[offer.kind](offer.links.length),
    run: () => make(offer.edits),
  }));
  bench.say({
    text: result.sentence,
    alarm: links.length > 0,
    ...(action ? { action } : {}),
    ...(orElse ? { orElse } : {}),
  });
}
