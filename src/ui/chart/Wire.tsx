import { memo } from 'react';
import { KNOT_PATH, knotTransform, strandPath, translate, wireMiddle, wirePath } from './geometry';
import type { Anchor } from './geometry';
import type { WireItem } from './scene';

/** Everything a wire draws, from its two anchors; the motion between two scenes calls it too. */
export function wireShapes(wire: WireItem, a: Anchor, b: Anchor) {
  const twisted = wire.kind === 'bundle';
  return {
    line: twisted ? strandPath(a, b, wire.cutA, wire.cutB, 1) : wirePath(a, b, wire.cutA, wire.cutB),
    second: twisted ? strandPath(a, b, wire.cutA, wire.cutB, -1) : null,
    hit: wirePath(a, b, false, false),
    knotA: wire.cutA ? knotTransform(a) : null,
    knotB: wire.cutB ? knotTransform(b) : null,
    label: translate(wireMiddle(a, b)),
  };
}

interface Props {
  readonly wire: WireItem;
  readonly selected: boolean;
  readonly onPath: boolean;
}

/** A cable, a bundle, or the stub of a host: open, cut at an end, down, or without this tree. */
export const Wire = memo(function Wire({ wire, selected, onPath }: Props) {
  const shapes = wireShapes(wire, wire.a, wire.b);
  const classes = ['wire', `wire-${wire.state}`, `wire-${wire.kind}`, selected && 'is-selected', onPath && 'on-path'];
  return (
    <g className={classes.filter(Boolean).join(' ')} data-key={wire.key} data-kind={wire.kind} data-id={wire.id}>
      <path className="hit" d={shapes.hit} />
      <path className="line" d={shapes.line} />
      {shapes.second && <path className="line second" d={shapes.second} />}
      {shapes.knotA && <path className="knot knot-a" d={KNOT_PATH} transform={shapes.knotA} />}
      {shapes.knotB && <path className="knot knot-b" d={KNOT_PATH} transform={shapes.knotB} />}
      {wire.label && (
        <g className="sum" transform={shapes.label}>
          <rect x={-wire.label.length * 3.6 - 4} y={-9} width={wire.label.length * 7.2 + 8} height={18} />
          <text dy={4}>{wire.label}</text>
        </g>
      )}
    </g>
  );
});
