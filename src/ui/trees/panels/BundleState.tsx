'use client';
import { verdictOf } from '../../../core/network';
import { portById } from '../../../core/design';
import type { Bundle, Design } from '../../../core/design';
import { useBench } from '../../session/context';

const WORD = {
  forms: 'forms',
  'too-few': 'down, too few members',
  never: 'never comes up',
  'one-sided': 'one end only',
  unanswered: 'unanswered',
} as const;

/** What becomes of a bundle as its two ends are set, member by member, and why. */
export function BundleState({ design, bundle }: { design: Design; bundle: Bundle }) {
  const { select } = useBench();
  const verdict = verdictOf(design, bundle.id);
  if (!verdict) return null;
  const wrong = verdict.outcome !== 'forms';
  return (
    <section aria-label={`Bundle ${bundle.name}`}>
      <h3>
        Bundle {bundle.name}: <span className={wrong ? 'alarm' : undefined}>{WORD[verdict.outcome]}</span>
      </h3>
      <p className={wrong ? 'small' : 'small quiet'}>{verdict.sentence}</p>
      <table className="rows">
        <tbody>
          {verdict.members.map((m) => (
            <tr key={m.port}>
              <th scope="row">
                <button className="plain" onClick={() => select({ kind: 'port', id: m.port })}>
                  {portById(design, m.port)?.name}
                </button>
              </th>
              <td className={m.miscabled || m.state === 'suspended' ? 'alarm' : undefined}>
                {m.miscabled ? 'miscabled, ' : ''}
                {m.state}
              </td>
              <td className="quiet small">{m.sentence}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
