'use client';
import { setField, splitBundles, switchById } from '../../core/design';
import type { Bundle, Design, Edit } from '../../core/design';
import { costOf } from '../../core/analysis';
import { BUNDLE_KIND_WORDS } from '../../core/messages';
import { count, grouped } from '../../core/standard';
import type { SolvedDesign } from '../../core/trees';
import { Field } from '../controls/Field';
import { useBench } from '../session/context';
import styles from './BundleDrawing.module.css';

interface Props {
  readonly design: Design;
  readonly solved: SolvedDesign;
  readonly bundle: Bundle;
  /** The end that faces it. */
  readonly other: Bundle | undefined;
  readonly fixed: boolean;
  /** Whether this is the end that is made like the other. */
  readonly alike?: boolean;
}

/** What both ends should agree on, with the field that makes it so. */
const AGREE = ['kind', 'timeout', 'vlans', 'native', 'minActive', 'maxActive'] as const;
type Agreed = (typeof AGREE)[number];

const differ = (a: Bundle, b: Bundle | undefined): Agreed[] =>
  b ? AGREE.filter((field) => JSON.stringify(a[field]) !== JSON.stringify(b[field])) : [];

const MODES = {
  'lacp active': 'LACP active: starts it',
  'lacp passive': 'LACP passive: waits',
  static: 'static',
  'own active': 'proprietary, active',
  'own passive': 'proprietary, passive',
  none: 'not configured: single ports',
} as const;

const modeOf = ({ kind, activity }: Bundle): keyof typeof MODES =>
  kind === 'static' ? 'static' : `${kind} ${activity ?? 'active'}`;

/** Edits that give an end a kind, and who starts. */
function modeEdits({ id }: Bundle, mode: string): Edit[] {
  if (mode === 'none') return splitBundles([id]);
  const [kind, activity] = mode.split(' ');
  return [
    setField('bundle', id, 'kind', kind),
    setField('bundle', id, 'activity', activity === 'passive' ? 'passive' : null),
  ];
}

/** One end of a bundle as it is drawn, with the values that decide; they are changed where they stand. */
export function DrawnEnd({ design, solved, bundle, other, fixed, alike }: Props) {
  const { edit } = useBench();
  const s = switchById(design, bundle.switch)!;
  const wrong = differ(bundle, other);
  const decides = bundle.kind === 'lacp' && other?.kind === 'lacp' && isLower(design, bundle, other);
  const cost = costOf(solved, bundle.id);
  const pick = (words: string, edits: readonly Edit[]) => edit(`${s.name} ${bundle.name}: ${words}`, edits);
  const makeAlike = () =>
    pick(
      'like the other end',
      wrong.flatMap((field) => [
        setField('bundle', bundle.id, field, other![field] ?? null),
        // VLANs belong to the bundle; its members follow, so that one that leaves does not carry others.
        ...(field === 'vlans' || field === 'native'
          ? bundle.members.map((m) => setField('port', m, field, other![field] ?? null))
          : []),
      ]),
    );
  return (
    <section className={styles.plate} aria-label={`${s.name} in the drawing`}>
      <h3>{s.name}</h3>
      <p className="mono quiet">
        {s.lacpPriority ?? 32768} · {s.mac.slice(-5)}
        {decides && <b> decides</b>}
      </p>
      <Values {...{ bundle, fixed, pick, cost }} wrong={new Set(wrong)} at={s.name} />
      {alike && !fixed && wrong.length > 0 && (
        <button className="plain" onClick={makeAlike}>
          make alike: {count(wrong.length, 'setting')}
        </button>
      )}
    </section>
  );
}

interface ValuesProps {
  readonly bundle: Bundle;
  readonly at: string;
  readonly cost: number | null;
  readonly fixed: boolean;
  readonly wrong: ReadonlySet<Agreed>;
  readonly pick: (words: string, edits: readonly Edit[]) => boolean;
}

function Values({ bundle, at, cost, fixed, wrong, pick }: ValuesProps) {
  const mark = (...fields: Agreed[]) => (fields.some((f) => wrong.has(f)) ? styles.differs : undefined);
  const timeout = (value: string) =>
    pick(`timeout ${value}`, [setField('bundle', bundle.id, 'timeout', value === 'long' ? null : value)]);
  return (
    <dl>
      <Value label="negotiation" mark={mark('kind')}>
        <select
          aria-label={`Negotiation of ${at} in the drawing`}
          value={modeOf(bundle)}
          disabled={fixed}
          title={BUNDLE_KIND_WORDS[bundle.kind]}
          onChange={({ target: { value } }) => pick(value, modeEdits(bundle, value))}
        >
          {Object.entries(MODES).map(([mode, words]) => (
            <option key={mode} value={mode}>
              {words}
            </option>
          ))}
        </select>
      </Value>
      <Value label="links, min to max" mark={mark('minActive', 'maxActive')}>
        {fixed ? `${bundle.minActive ?? 1} to ${bundle.maxActive ?? 8}` : <MinToMax {...{ bundle, at, pick }} />}
      </Value>
      {bundle.kind === 'lacp' && (
        <Value label="timeout" mark={mark('timeout')}>
          <select
            aria-label={`Timeout of ${at} in the drawing`}
            value={bundle.timeout ?? 'long'}
            disabled={fixed}
            onChange={({ target: { value } }) => timeout(value)}
          >
            <option value="long">long, 90 s</option>
            <option value="short">short, 3 s</option>
          </select>
        </Value>
      )}
      <Value label="VLANs" mark={mark('vlans', 'native')}>
        {fixed ? vlanWords(bundle).replaceAll(',', ', ') : <VlansOf {...{ bundle, at, pick }} />}
        {bundle.native === undefined ? '' : `, untagged ${bundle.native}`}
      </Value>
      <Value label="cost by speed" mark={undefined}>
        {cost === null ? 'none: no port' : grouped(cost)}
      </Value>
    </dl>
  );
}

type Changed = Pick<ValuesProps, 'bundle' | 'at' | 'pick'>;

const vlanWords = ({ vlans }: Bundle): string => vlans ?? 'all';

/** An empty field takes a number back to what it usually is; what is no number is refused by the design, with its reason. */
const orUsual = (text: string, usual: number): unknown => {
  const value = Number(text);
  return text.trim() === '' || value === usual ? null : Number.isFinite(value) ? value : text;
};

function MinToMax({ bundle, at, pick }: Changed) {
  const of = (field: 'minActive' | 'maxActive', words: string, usual: number) => (
    <Field
      key={`${bundle.id} ${field}`}
      label={`${words} links of ${at} in the drawing`}
      width={46}
      value={String(bundle[field] ?? usual)}
      onSet={(text) => pick(`${words} links ${text}`, [setField('bundle', bundle.id, field, orUsual(text, usual))])}
    />
  );
  return (
    <span className={styles.fields}>
      {of('minActive', 'Minimum', 1)} to {of('maxActive', 'Maximum', 8)}
    </span>
  );
}

/** VLANs of the bundle; its members follow, so that one that leaves does not carry others. */
function VlansOf({ bundle, at, pick }: Changed) {
  const set = (text: string) => {
    const value = text.trim() === '' || text.trim() === 'all' ? null : text.trim();
    return pick(`VLANs ${text}`, [
      setField('bundle', bundle.id, 'vlans', value),
      ...bundle.members.map((m) => setField('port', m, 'vlans', value)),
    ]);
  };
  return (
    <span className={styles.fields}>
      <Field
        key={bundle.id}
        label={`VLANs of ${at} in the drawing`}
        width={196}
        value={vlanWords(bundle)}
        onSet={set}
      />
    </span>
  );
}

function Value({ label, mark, children }: { label: string; mark: string | undefined; children: React.ReactNode }) {
  return (
    <div className={mark}>
      <dt>
        {label}
        {mark ? ' ≠' : ''}
      </dt>
      <dd>{children}</dd>
    </div>
  );
}

/** Whether the system of one end is better than that of the other: it says which members are active (802.1AX-2014 6.7.1). */
function isLower(design: Design, own: Bundle, other: Bundle): boolean {
  const system = (b: Bundle): [number, string] => {
    const s = switchById(design, b.switch)!;
    return [b.systemPriority ?? s.lacpPriority ?? 32768, b.systemMac ?? s.mac];
  };
  const [[priority, mac], [theirs, farMac]] = [system(own), system(other)];
  return priority < theirs || (priority === theirs && mac < farMac);
}
