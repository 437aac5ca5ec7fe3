'use client';
import Button from '@mui/material/Button';
import { pairReport } from '../../core/network';
import type { PairReport, PairState } from '../../core/network';
import { bundleAt, dissolvePair, linkSpeed, portById, setField, switchById } from '../../core/design';
import type { Design, Link, SwitchPair } from '../../core/design';
import { speedLabel } from '../chart/ends';
import { Field } from '../controls/Field';
import { Choice } from '../controls/DesignSettings';
import { useBench, useSession } from '../session/context';
import { Term } from '../controls/Term';
import styles from './PairSheet.module.css';

const STATE_WORD: Record<PairState, string> = {
  one: 'one bridge',
  alone: 'one of two',
  'primary-only': 'primary only',
  split: 'both act alone',
  off: 'off',
};

/** Cables between the two switches. */
function linksBetween(design: Design, [a, b]: SwitchPair['switches']): Link[] {
  const at = (end: Link['a']) => ('port' in end ? portById(design, end.port)?.switch : undefined);
  return design.links.filter((l) => {
    const ends = [at(l.a), at(l.b)];
    return ends.includes(a) && ends.includes(b);
  });
}

const cableWords = (design: Design, l: Link): string => {
  const [a, b] = [l.a, l.b].map((e) => ('port' in e ? (portById(design, e.port)?.name ?? '') : ''));
  const bundle = 'port' in l.a ? bundleAt(design, l.a.port) : undefined;
  return `${a} – ${b}, ${speedLabel(linkSpeed(design, l))}${bundle ? `, in ${bundle.name}` : ''}`;
};

type Setter = (field: 'domain' | 'switches' | 'peer' | 'keepalive', value: unknown, words: string) => boolean;

interface PartProps {
  readonly pair: SwitchPair;
  readonly names: readonly [string, string];
  readonly between: readonly Link[];
  readonly set: Setter;
}

/** Two switches that present themselves as one: what joins them, how they stand, what they must have alike. */
export function PairSheet({ pair, onGone }: { pair: SwitchPair; onGone: () => void }) {
  const { edit } = useBench();
  const design = useSession((s) => s.design);
  const { state, sentence, checks } = pairReport(design, pair);
  const names = pair.switches.map((id) => switchById(design, id)!.name) as [string, string];
  const [first, second] = names;
  const set: Setter = (field, value, words) =>
    edit(`Pair ${first} + ${second}: ${words}`, [setField('pair', pair.id, field, value)]);
  const between = linksBetween(design, pair.switches);
  return (
    <section className="bundle-sheet" aria-label={`Pair ${first} + ${second}`}>
      <header>
        <h2>
          {first} + {second}: <span className={state === 'one' ? undefined : 'alarm'}>{STATE_WORD[state]}</span>
        </h2>
        <span className="grow" />
        <Button
          onClick={() => {
            if (edit(`Dissolve pair ${first} + ${second}`, dissolvePair(design, pair))) onGone();
          }}
        >
          Dissolve
        </Button>
      </header>
      <p className={state === 'one' ? 'sentence' : 'sentence wrong'}>{sentence}</p>
      <div className="bundle-ends">
        <Roles pair={pair} names={names} between={between} set={set} />
        <PeerLink pair={pair} between={between} set={set} />
      </div>
      <Checks names={names} checks={checks} />
      <p className="quiet">
        To bundle a third switch to both, select its cables to the two and press J. A model: devices differ in detail.
        Here the pair is one bridge and one LACP system with the identity of the primary, and its peer link is never
        blocked.
      </p>
    </section>
  );
}

function Roles({ pair, names: [first, second], between, set }: PartProps) {
  const design = useSession((s) => s.design);
  return (
    <section className="bundle-end" aria-label="Roles">
      <h3>Roles</h3>
      <div className="bundle-fields">
        <Field
          key={pair.id}
          label="domain"
          width={84}
          value={String(pair.domain)}
          onSet={(text) => set('domain', Number.isFinite(Number(text)) ? Number(text) : text, `domain ${text}`)}
        />
      </div>
      <Choice
        label="Primary"
        value={pair.switches[0]}
        options={{ [pair.switches[0]]: first, [pair.switches[1]]: second }}
        onPick={(id, words) =>
          id === pair.switches[0] || set('switches', [pair.switches[1], pair.switches[0]], `primary ${words}`)
        }
      />
      <Choice
        label="Keepalive"
        value={pair.keepalive ?? ''}
        options={{ '': 'none', ...Object.fromEntries(between.map((l) => [l.id, cableWords(design, l)])) }}
        onPick={(id, words) => set('keepalive', id === '' ? null : id, `keepalive ${words}`)}
      />
    </section>
  );
}

function PeerLink({ pair, between, set }: Omit<PartProps, 'names'>) {
  const design = useSession((s) => s.design);
  return (
    <section className="bundle-end" aria-label="Peer link">
      <h3>
        <Term id="peerLink">Peer link</Term>
      </h3>
      {between.map((l) => (
        <label key={l.id} className={styles.peerCable}>
          <input
            type="checkbox"
            checked={pair.peer.includes(l.id)}
            onChange={(e) =>
              set(
                'peer',
                e.target.checked ? [...pair.peer, l.id] : pair.peer.filter((id) => id !== l.id),
                `peer link ${cableWords(design, l)}`,
              )
            }
          />{' '}
          <span className={l.down ? 'alarm' : undefined}>
            {cableWords(design, l)}
            {l.down ? ', down' : ''}
          </span>
        </label>
      ))}
      {between.length === 0 && <p className="alarm">No cable joins the two: cable them in Cabling.</p>}
    </section>
  );
}

/** What both switches need alike. */
function Checks({ names, checks }: Pick<PartProps, 'names'> & Pick<PairReport, 'checks'>) {
  const [first, second] = names;
  return (
    <table className={`rows ${styles.pairChecks}`}>
      <caption>What both switches need alike</caption>
      <thead>
        <tr>
          <td />
          <th scope="col">{first}</th>
          <th scope="col">{second}</th>
          <th scope="col">check</th>
        </tr>
      </thead>
      <tbody>
        {checks.map((c) => (
          <tr key={c.what}>
            <th scope="row">{c.what}</th>
            <td className="mono" colSpan={c.second === '' ? 2 : 1}>
              {c.first}
            </td>
            {c.second !== '' && <td className="mono">{c.second}</td>}
            <td className={c.ok ? 'quiet' : 'alarm'}>{c.ok ? (c.second === '' ? 'ok' : 'same') : c.sentence}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
