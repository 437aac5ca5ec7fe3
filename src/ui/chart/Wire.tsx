import { memo } from 'react';
import { LABEL_HEIGHT, labelWidth } from './geometry';
import type { WireItem } from './scene-items';
import { stillWire } from './still';

export type Register = (key: string, element: Element | null) => void;

interface Props {
  readonly wire: WireItem;
  readonly selected: boolean;
  readonly onPath: boolean;
  /** Seen from afar: the line alone. */
  readonly far: boolean;
  /** Nothing of it is in sight: it is passed over. */
  readonly out: boolean;
  /** Without the label that a single cable has. */
  readonly bare: boolean;
  readonly register: Register;
}

/** What of a wire its looks depend on; where it runs is the drawing's business. */
const sameLooks = (a: Props, b: Props) =>
  a.selected === b.selected &&
  a.onPath === b.onPath &&
  a.far === b.far &&
  a.out === b.out &&
  a.bare === b.bare &&
  a.wire.key === b.wire.key &&
  a.wire.state === b.wire.state &&
  a.wire.blockedA === b.wire.blockedA &&
  a.wire.blockedB === b.wire.blockedB &&
  a.wire.label === b.wire.label &&
  a.wire.alarm === b.wire.alarm &&
  a.wire.unseen === b.wire.unseen &&
  a.wire.round === b.wire.round &&
  a.wire.weight === b.wire.weight;

/** A cable, a bundle, or the stub of a host: open, cut at an end, down, or without this tree. */
export const Wire = memo(function Wire({ wire, selected, onPath, far, out, bare, register }: Props) {
  const classes = ['wire', `wire-${wire.state}`, `wire-${wire.kind}`, selected && 'is-selected', onPath && 'on-path'];
  if (wire.weight) classes.push(`rate-${wire.weight}`);
  if (wire.alarm) classes.push('has-alarm');
  if (wire.unseen) classes.push('is-unseen');
  if (wire.round) classes.push('goes-round');
  if (out) classes.push('is-out');
  const still = stillWire(wire);
  return (
    <g
      ref={(element) => {
        register(wire.key, element);
        return () => register(wire.key, null);
      }}
      className={classes.filter(Boolean).join(' ')}
      data-kind={wire.kind}
      data-id={wire.kind === 'ghost' ? undefined : wire.id}
    >
      {!far && <path className="hit" {...still.hit} />}
      <path className="line" {...still.line} />
      {wire.kind === 'bundle' && <path className="line second" {...still.second} />}
      {!far && wire.blockedA && <path className="knot knot-a" {...still.knotA} />}
      {!far && wire.blockedB && <path className="knot knot-b" {...still.knotB} />}
      {wire.label && (wire.kind === 'bundle' || wire.kind === 'ghost' || (!far && !bare)) && (
        <g className="sum" {...still.label}>
          <g className="sum-scaled">
            <rect
              x={-labelWidth(wire.label) / 2}
              y={-LABEL_HEIGHT / 2}
              width={labelWidth(wire.label)}
              height={LABEL_HEIGHT}
            />
            <text dy={4}>{wire.label}</text>
          </g>
        </g>
      )}
    </g>
  );
}, sameLooks);
