'use client';
import Button from '@mui/material/Button';
import { hostById, usualHelloSpread } from '../../core/design';
import type { Design, Probe, Script } from '../../core/design';
import { Field } from '../controls/Field';
import styles from './RunSettings.module.css';

interface Props {
  design: Design;
  script: Script;
  /** Pairs that the run probed. */
  probed: readonly Probe[];
  set: (field: keyof Script & string, value: unknown, words: string) => boolean;
}

const FIELDS = [
  { field: 'seed', label: 'seed', otherwise: 1, width: 60 },
  { field: 'helloSpread', label: 'hellos within, ms', otherwise: null, width: 96 },
  { field: 'linkDelay', label: 'a link takes, µs', otherwise: 5, width: 96 },
  { field: 'processingDelay', label: 'a switch takes, µs', otherwise: 500, width: 104 },
] as const;

const asNumber = (text: string): unknown =>
  text.trim() === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text;
/** Delays and hellos of a run, and the pairs of hosts that talk in it. */
export function RunSettings({ design, script, probed, set }: Props) {
  const pairs = script.probes;
  const setPairs = (probes: readonly Probe[] | null, words: string) => set('probes', probes, words);
  return (
    <details className={styles.runSettings}>
      <summary>Delays, hellos and pairs</summary>
      <div className="bundle-fields">
        {FIELDS.map(({ field, label, otherwise, width }) => (
          <Field
            key={`${script.id} ${field}`}
            label={label}
            width={width}
            value={String(script[field] ?? otherwise ?? usualHelloSpread(design))}
            onSet={(t) => set(field, asNumber(t), `${label} ${t}`)}
          />
        ))}
      </div>
      <PairRows design={design} pairs={pairs} probed={probed} onSet={setPairs} />
      {design.hosts.length < 2 ? (
        <p className="quiet small">A pair needs two hosts: draw them in Cabling.</p>
      ) : pairs ? (
        <p className="offers">
          <Button onClick={() => setPairs([...pairs, newPair(design, pairs)], 'pair added')}>Add a pair</Button>
          <Button onClick={() => setPairs(null, 'default pairs')}>Default pairs</Button>
        </p>
      ) : (
        <p className="offers">
          <Button
            onClick={() =>
              setPairs(
                probed.map(({ from, to, vlan }) => ({ from, to, vlan })),
                'pairs chosen',
              )
            }
          >
            Choose the pairs
          </Button>
        </p>
      )}
    </details>
  );
}

interface PairsProps {
  readonly design: Design;
  /** Null for those that are probed by default. */
  readonly pairs: readonly Probe[] | undefined;
  readonly probed: readonly Probe[];
  readonly onSet: (probes: readonly Probe[], words: string) => void;
}

function PairRows({ design, pairs, probed, onSet }: PairsProps) {
  return (
    <table className="rows pairs" aria-label="Probed host pairs">
      <tbody>
        {(pairs ?? probed).map((p, i) => (
          <tr key={i}>
            {pairs ? (
              <PairCells
                design={design}
                pair={p}
                number={i + 1}
                onChange={(part) =>
                  onSet(
                    pairs.map((q, j) => (j === i ? { ...q, ...part } : q)),
                    'pair changed',
                  )
                }
                onRemove={() =>
                  onSet(
                    pairs.filter((_, j) => j !== i),
                    'pair removed',
                  )
                }
              />
            ) : (
              <td className="quiet">
                {hostById(design, p.from)?.name} – {hostById(design, p.to)?.name}, VLAN {p.vlan}
              </td>
            )}
          </tr>
        ))}
        {(pairs ?? probed).length === 0 && (
          <tr>
            <td className="quiet">No pair: reachability is not measured.</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

interface CellsProps {
  readonly design: Design;
  readonly pair: Probe;
  readonly number: number;
  readonly onChange: (part: Partial<Probe>) => void;
  readonly onRemove: () => void;
}

function PairCells({ design, pair, number, onChange, onRemove }: CellsProps) {
  const hosts = (label: string, value: string, onPick: (id: string) => void) => (
    <select aria-label={label} value={value} onChange={(e) => onPick(e.target.value)}>
      {!hostById(design, value) && <option value={value}>{value} is gone</option>}
      {design.hosts.map((h) => (
        <option key={h.id} value={h.id}>
          {h.name}
        </option>
      ))}
    </select>
  );
  return (
    <>
      <td>{hosts(`From, pair ${number}`, pair.from, (from) => onChange({ from }))}</td>
      <td>{hosts(`To, pair ${number}`, pair.to, (to) => onChange({ to }))}</td>
      <td>
        <select
          aria-label={`VLAN, pair ${number}`}
          className="mono"
          value={pair.vlan}
          onChange={(e) => onChange({ vlan: Number(e.target.value) })}
        >
          {design.vlans.map((v) => (
            <option key={v.id} value={v.number}>
              {v.number}
            </option>
          ))}
        </select>
      </td>
      <td>
        <AnswersEvery number={number} every={pair.answersEvery} onChange={onChange} />
      </td>
      <td>
        <button className="plain quiet remove" aria-label={`Remove pair ${number}`} onClick={onRemove}>
          ×
        </button>
      </td>
    </>
  );
}

const INTERVALS = [1, 10, 60, 300, 600, 3600];
interface AnswersProps {
  readonly number: number;
  readonly every: Probe['answersEvery'];
  readonly onChange: (part: Partial<Probe>) => void;
}

/** How often the second host of a pair speaks: where it is silent for long, frames for it are flooded. */
function AnswersEvery({ number, every, onChange }: AnswersProps) {
  const offered = typeof every === 'number' && !INTERVALS.includes(every) ? [...INTERVALS, every] : INTERVALS;
  return (
    <select
      aria-label={`Answers, pair ${number}`}
      value={every ?? 'always'}
      onChange={({ target: { value } }) =>
        onChange({ answersEvery: value === 'always' ? undefined : value === 'never' ? 'never' : Number(value) })
      }
    >
      <option value="always">answers always</option>
      {offered.map((s) => (
        <option key={s} value={s}>
          {s < 60 ? `every ${s} s` : s < 3600 ? `every ${s / 60} min` : `every ${s / 3600} h`}
        </option>
      ))}
      <option value="never">never answers</option>
    </select>
  );
}

/** Two hosts that do not talk yet, in a VLAN of one of them. */
function newPair(design: Design, pairs: readonly Probe[]): Probe {
  const taken = new Set(pairs.flatMap((p) => [`${p.from} ${p.to}`, `${p.to} ${p.from}`]));
  const all = design.hosts.flatMap((a, i) => design.hosts.slice(i + 1).map((b) => [a, b] as const));
  const [a, b] = all.find(([x, y]) => !taken.has(`${x.id} ${y.id}`) && x.vlan === y.vlan) ?? all[0]!;
  return { from: a.id, to: b.id, vlan: a.vlan ?? design.vlans[0]?.number ?? 1 };
}
