import { OUTCOME_WORDS, bundleVerdicts, pairReport } from '../core/network';
import { bundleById, farEnd, hostById, linkAt, portById, portLabel, switchById } from '../core/design';
import type { Design } from '../core/design';
import { readDesignFile } from './files';

/** Where a member's cable ends, by name; null when nothing is plugged in. */
function farName(design: Design, port: string): string | null {
  const link = linkAt(design, port);
  if (!link) return null;
  const far = farEnd(link, port);
  return 'host' in far ? (hostById(design, far.host)?.name ?? far.host) : portLabel(design, far.port);
}

/** The verdict on every bundle end and each of its members; status 1 when one does not form. */
export async function bundles(file: string, options: { json?: boolean }): Promise<number> {
  const design = await readDesignFile(file);
  if (!design) return 1;
  const rows = bundleVerdicts(design).map((v) => {
    const bundle = bundleById(design, v.bundle)!;
    return {
      switch: switchById(design, bundle.switch)?.name,
      bundle: bundle.name,
      kind: bundle.kind,
      activity: bundle.kind === 'static' ? null : (bundle.activity ?? 'active'),
      partner: v.partner,
      outcome: v.outcome,
      sentence: v.sentence,
      members: v.members.map((m) => ({
        port: portById(design, m.port)?.name,
        far: farName(design, m.port),
        state: m.state,
        miscabled: m.miscabled,
        sentence: m.sentence,
      })),
    };
  });
  const pairs = design.pairs.map((pair) => {
    const { state, sentence, checks } = pairReport(design, pair);
    return { domain: pair.domain, switches: pair.switches, state, sentence, checks };
  });
  if (options.json) process.stdout.write(`${JSON.stringify({ bundles: rows, pairs })}\n`);
  else if (rows.length === 0) process.stdout.write('The design has no bundles.\n');
  else
    for (const r of rows) {
      process.stdout.write(`${r.switch} ${r.bundle}: ${OUTCOME_WORDS[r.outcome]}. ${r.sentence}\n`);
      for (const m of r.members)
        process.stdout.write(`  ${m.port} – ${m.far ?? 'nothing'}: ${m.state}. ${m.sentence}\n`);
    }
  if (!options.json)
    for (const p of pairs) {
      process.stdout.write(`pair ${p.domain}: ${p.sentence}\n`);
      for (const c of p.checks.filter((check) => !check.ok)) process.stdout.write(`  ${c.what}: ${c.sentence}\n`);
    }
  return rows.every((r) => r.outcome === 'forms') ? 0 : 1;
}
