'use client';
import { useMemo, useState } from 'react';
import {
  Bar as ChartBar,
  BarChart,
  CartesianGrid,
  Cell,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { TOOLTIP } from '../controls/chart-style';
import { USUAL_HASH, generated, movedByFailure, shares, typedConversations } from '../../core/analysis';
import type { BundleVerdict } from '../../core/network';
import type { Conversation, HashField } from '../../core/analysis';
import { HASH_FIELDS, linkAt, linkSpeed, portById, setField, switchById } from '../../core/design';
import type { Bundle } from '../../core/design';

import { useBench, useSession } from '../session/context';
import { grouped } from '../../core/standard';
import styles from './Distribution.module.css';

const SIZES = [2, 3, 4, 5, 6, 7, 8];
type Asked = Readonly<Record<'hosts' | 'servers' | 'load', number>>;

/** How frames that leave by this end are shared out over its members, for conversations between hosts and servers. */
export function Distribution({ bundle, verdict }: { bundle: Bundle; verdict: BundleVerdict }) {
  const design = useSession((s) => s.design);
  const [asked, setAsked] = useState({ hosts: 40, servers: 2, load: 20 });
  const fields = bundle.hash ?? USUAL_HASH;
  const active = verdict.members.filter((m) => m.state === 'active');
  const speeds = active.map((m) => linkSpeed(design, linkAt(design, m.port)!));
  const [typed, setTyped] = useState<string | null>(null);
  const read = useMemo(() => (typed === null ? null : typedConversations(typed)), [typed]);
  const made = useMemo(() => generated(asked.hosts, asked.servers, asked.load), [asked]);
  const conversations = read?.ok ? read.conversations : made;
  const found = useMemo(
    () => shares(conversations, fields, Math.max(1, active.length)),
    [conversations, fields, active.length],
  );
  const s = switchById(design, bundle.switch)!;

  const bars = active.map((m, i) => ({
    name: `port ${portById(design, m.port)?.name}`,
    load: found.load[i]!,
    over: found.load[i]! > speeds[i]!,
  }));
  return (
    <section className="distribution" aria-label={`Distribution at ${s.name}`}>
      <h3>Frames that leave {s.name}</h3>
      <HashFields bundle={bundle} at={s.name} />
      <p className="bundle-fields">
        {typed === null && <AskedFields asked={asked} onAsk={setAsked} />}
        <label>
          <input
            type="checkbox"
            checked={typed !== null}
            onChange={(e) => setTyped(e.target.checked ? 'ticket-desk ferry-server 20\nrecorder gate-camera 60' : null)}
          />{' '}
          my own conversations
        </label>
      </p>
      {typed !== null && (
        <TypedFields typed={typed} fault={read && !read.ok ? read.sentence : null} at={s.name} onType={setTyped} />
      )}
      {active.length === 0 ? (
        <p className="quiet">No member carries.</p>
      ) : (
        <div className={styles.distributionFigures}>
          <MemberLoads bars={bars} fastest={Math.max(0, ...speeds)} />
          <Figures conversations={conversations} fields={fields} speeds={speeds} unevenness={found.unevenness} />
        </div>
      )}
      <p className="quiet small">
        A model: devices differ in their hash, but each sends a conversation over one member, chosen by the fields of
        the hash.
      </p>
    </section>
  );
}

/** How many conversations are made up, between how many hosts. */
function AskedFields({ asked, onAsk }: { asked: Asked; onAsk: (asked: Asked) => void }) {
  const number = (label: string, key: keyof typeof asked, max: number) => (
    <label>
      <input
        type="number"
        className="mono small-number"
        min={1}
        max={max}
        value={asked[key]}
        aria-label={label}
        onChange={(e) =>
          onAsk({ ...asked, [key]: Math.min(max, Math.max(1, Math.round(Number(e.target.value)) || 1)) })
        }
      />{' '}
      {label}
    </label>
  );
  return (
    <>
      {number('hosts', 'hosts', 2000)} {number('servers', 'servers', 50)} {number('Mb/s each', 'load', 100000)}
    </>
  );
}

interface Bar {
  readonly name: string;
  readonly load: number;
  readonly over: boolean;
}

/** Load of each member; the line is what one carries. */
function MemberLoads({ bars, fastest }: { bars: readonly Bar[]; fastest: number }) {
  return (
    <figure className="load-chart" aria-label="Load of each member in Mb/s">
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={[...bars]} margin={{ top: 6, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid vertical={false} stroke="var(--rule)" />
          <XAxis dataKey="name" tick={{ fill: 'var(--ink-2)', fontSize: 11 }} stroke="var(--rule)" />
          <YAxis width={52} tick={{ fill: 'var(--ink-2)', fontSize: 11 }} stroke="var(--rule)" />
          <Tooltip {...TOOLTIP} formatter={(value) => [`${String(value)} Mb/s`, '']} separator="" />
          {bars.some((b) => b.over) && <ReferenceLine y={fastest} stroke="var(--alarm)" strokeDasharray="4 3" />}
          <ChartBar dataKey="load" isAnimationActive={false} maxBarSize={60}>
            {bars.map((b) => (
              <Cell key={b.name} fill={b.over ? 'var(--alarm)' : 'var(--ink-2)'} />
            ))}
          </ChartBar>
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

interface FiguresProps {
  readonly conversations: readonly Conversation[];
  readonly fields: readonly HashField[];
  /** Mb/s of each active member. */
  readonly speeds: readonly number[];
  readonly unevenness: number;
}

function Figures({ conversations, fields, speeds, unevenness }: FiguresProps) {
  const biggest = Math.max(0, ...conversations.map((c) => c.load));
  const capacity = speeds.reduce((a, b) => a + b, 0);
  const fastest = Math.max(0, ...speeds);
  return (
    <dl className="facts">
      <div>
        <dt>capacity</dt>
        <dd className="mono">{grouped(capacity)} Mb/s</dd>
      </div>
      <div>
        <dt>with one member down</dt>
        <dd className="mono">{grouped(capacity - fastest)} Mb/s</dd>
      </div>
      <div>
        <dt>one conversation, at most</dt>
        <dd className="mono">{grouped(fastest)} Mb/s</dd>
      </div>
      {biggest > fastest && (
        <div>
          <dt className="alarm">the largest conversation needs</dt>
          <dd className="mono">{grouped(biggest)} Mb/s; it gets one member at most</dd>
        </div>
      )}
      <div>
        <dt>fullest member</dt>
        <dd className="mono">{unevenness.toFixed(2)} × the mean</dd>
      </div>
      <div>
        <dt>move when the first member fails</dt>
        <dd className="mono">
          {movedByFailure(conversations, fields, speeds.length, 0)} of {conversations.length}
        </dd>
      </div>
      <div>
        <dt>fullest of 2 to 8 members, × the mean</dt>
        <dd className="mono">
          {SIZES.map((n) => (
            <span key={n} className="pair">
              {n}: {shares(conversations, fields, n).unevenness.toFixed(2)}
            </span>
          ))}
        </dd>
      </div>
    </dl>
  );
}

/** Which fields of a frame choose the member. */
function HashFields({ bundle, at }: { bundle: Bundle; at: string }) {
  const { edit } = useBench();
  const fields = bundle.hash ?? USUAL_HASH;
  const toggle = (field: HashField) => {
    const next = HASH_FIELDS.filter((f) => (f === field ? !fields.includes(f) : fields.includes(f)));
    edit(`${at} ${bundle.name}: hash ${next.join(', ') || 'the usual'}`, [
      setField('bundle', bundle.id, 'hash', next.length === 0 ? null : next),
    ]);
  };
  return (
    <p className="bundle-fields">
      <span className="quiet">the member is chosen by</span>
      {HASH_FIELDS.map((f) => (
        <label key={f}>
          <input type="checkbox" checked={fields.includes(f)} onChange={() => toggle(f)} /> {f.replace('-', ' ')}
        </label>
      ))}
    </p>
  );
}

interface TypedProps {
  readonly typed: string;
  readonly fault: string | null;
  readonly at: string;
  readonly onType: (text: string) => void;
}

/** Conversations as people type them or copy them from a table. */
function TypedFields({ typed, fault, at, onType }: TypedProps) {
  return (
    <p>
      <textarea
        className={`mono ${styles.typedConversations}`}
        aria-label={`Conversations at ${at}: from, to, Mb/s, VLAN, ports`}
        rows={5}
        value={typed}
        onChange={(e) => onType(e.target.value)}
      />
      {fault && <span className="alarm small">{fault}</span>}
    </p>
  );
}
