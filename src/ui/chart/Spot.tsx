import { memo } from 'react';
import { BAR_HALF, TAG_HEIGHT, tagWidth } from './geometry';
import type { Way } from './legible';
import type { SpotItem } from './scene-items';
import { stillAt } from './still';
import type { Register } from './Wire';

interface Props {
  readonly spot: SpotItem;
  readonly selected: boolean;
  readonly onPath: boolean;
  /** From where its tag grows as the drawing shrinks, and how much it can. */
  readonly way: Way;
  readonly most: number;
  readonly register: Register;
  /** Whether a cable can be pulled from it. */
  readonly grip?: boolean;
}

/** A host as a tag, or a shared segment as a bar. */
export const Spot = memo(function Spot({ spot, selected, onPath, way, most, register, grip }: Props) {
  const classes = ['spot', `spot-${spot.kind}`, selected && 'is-selected', onPath && 'on-path'];
  if (spot.alarm) classes.push('has-alarm');
  const half = spot.kind === 'host' ? tagWidth(spot.name) / 2 : BAR_HALF;
  const key = `${spot.kind} ${spot.id}`;
  return (
    <g
      ref={(element) => {
        register(key, element);
        return () => register(key, null);
      }}
      className={classes.filter(Boolean).join(' ')}
      transform={stillAt(spot)}
      data-kind={spot.kind}
      data-id={spot.id}
    >
      <g className={`spot-scaled grows-${way}`} style={{ '--spots': most } as React.CSSProperties}>
        {spot.kind === 'segment' && <rect className="bar" x={-half} y={-3} width={2 * half} height={6} />}
        {spot.kind === 'host' && (
          <rect
            className="tag"
            x={-half}
            y={-TAG_HEIGHT / 2}
            width={2 * half}
            height={TAG_HEIGHT}
            rx={TAG_HEIGHT / 2}
          />
        )}
        {grip && (
          <circle className="grip" cx={half} cy={spot.kind === 'host' ? TAG_HEIGHT / 2 : 0} r={6} data-grip="" />
        )}
        <text dy={spot.kind === 'segment' ? 17 : 4}>{spot.name}</text>
      </g>
    </g>
  );
});
