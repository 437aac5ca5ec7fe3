'use client';
import { OUTCOME_WORDS, verdictOf } from '../../../core/network';
import { portById } from '../../../core/design';
import type { Bundle, Design } from '../../../core/design';
import { useBench } from '../../session/context';

/** The state of a bundle, member by member, and why. */
export function BundleState({ design, bundle }: { design: Design; bundle: Bundle }) {
  const { select } = useBench();
  const verdict = verdictOf(design, bundle.id);
  if (!verdict) return null;
  const wrong = verdict.outcome !== 'forms';
  return (
    <section aria-label={`Bundle ${bundle.name}`}>
      <h3>
        Bundle {bundle.name}: <span className={wrong ? 'alarm' : undefined}>{OUTCOME_WORDS[verdict.outcome]}</span>
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
