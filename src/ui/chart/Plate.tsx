import { memo } from 'react';
import { PLATE } from './geometry';
import { shortName } from './legible';
import type { PlateItem } from './scene-items';
import { stillAt } from './still';
import type { Register } from './Wire';
import styles from './Plate.module.css';

interface Props {
  readonly plate: PlateItem;
  readonly selected: boolean;
  readonly onPath: boolean;
  readonly register: Register;
  /** Lines of text: both near, the name from afar, none out of sight. Text is laid out again at every step of a zoom. */
  readonly lines: 0 | 1 | 2;
  /** Whether a cable can be pulled from its corner. */
  readonly grip?: boolean;
}

const sameLooks = (a: Props, b: Props) =>
  a.selected === b.selected &&
  a.onPath === b.onPath &&
  a.lines === b.lines &&
  a.plate.id === b.plate.id &&
  a.plate.name === b.plate.name &&
  a.plate.width === b.plate.width &&
  a.plate.second === b.plate.second &&
  a.plate.tag === b.plate.tag &&
  a.plate.spoken === b.plate.spoken &&
  a.plate.standing === b.plate.standing &&
  a.plate.region?.name === b.plate.region?.name &&
  a.plate.region?.hue === b.plate.region?.hue &&
  a.plate.unlike === b.plate.unlike &&
  a.plate.alarms === b.plate.alarms &&
  a.plate.fold?.switches.length === b.plate.fold?.switches.length;

/** A switch: its name, what the view notes of it, and where it stands. The root is inverted, the next framed. */
export const Plate = memo(function Plate({ plate, selected, onPath, register, lines, grip }: Props) {
  const { width, name, second, tag, standing } = plate;
  const { fold, unlike } = plate;
  const classes = [
    'plate',
    `plate-${standing}`,
    unlike && styles.unlike,
    selected && 'is-selected',
    onPath && 'on-path',
  ];
  return (
    <g
      className={classes.filter(Boolean).join(' ')}
      ref={(element) => {
        register(`switch ${plate.id}`, element);
        return () => register(`switch ${plate.id}`, null);
      }}
      transform={stillAt(plate)}
      data-kind={fold ? 'fold' : 'switch'}
      data-id={plate.id}
      role="button"
      aria-label={plate.spoken}
      aria-pressed={selected}
      tabIndex={fold ? 0 : -1}
    >
      {plate.region && <RegionOf region={plate.region} width={width} named={lines > 0} />}
      {selected && (
        <rect
          className="halo"
          x={-width / 2 - 5}
          y={-PLATE.height / 2 - 5}
          width={width + 10}
          height={PLATE.height + 10}
          rx={5}
        />
      )}
      {fold && <Sheets width={width} />}
      <rect className="sheet" x={-width / 2} y={-PLATE.height / 2} width={width} height={PLATE.height} rx={3} />
      {lines === 2 && (
        <text className="name" x={-width / 2 + 12} y={-3}>
          {shortName(name)}
        </text>
      )}
      {lines === 2 && (
        <text className="priority" x={-width / 2 + 12} y={13}>
          {unlike ?? second}
        </text>
      )}
      {lines === 2 && tag && !unlike && (
        <text className="standing" x={width / 2 - 11} y={13}>
          {tag}
        </text>
      )}
      {plate.alarms !== undefined && <Alarms count={plate.alarms} x={width / 2} shown={lines > 0} />}
      {grip && <circle className="grip" cx={width / 2} cy={PLATE.height / 2} r={7} data-grip="" />}
    </g>
  );
}, sameLooks);

interface LoneProps {
  readonly plate: PlateItem;
  readonly text: string;
  readonly register: Register;
}

/** The name of a plate that has no room for more: over all plates, since it may reach beyond its own. */
export const LoneName = memo(function LoneName({ plate, text, register }: LoneProps) {
  const key = `name ${plate.id}`;
  return (
    <g
      ref={(element) => {
        register(key, element);
        return () => register(key, null);
      }}
      className={`plate-${plate.standing} ${styles.alone}`}
      transform={stillAt(plate)}
      aria-hidden="true"
    >
      <text className="name" dy="0.36em">
        {text}
      </text>
    </g>
  );
});

/** A number at the upper corner; a bare mark where no text is shown. */
function Alarms({ count, x, shown }: { count: number; x: number; shown: boolean }) {
  const text = count > 99 ? '99+' : String(count);
  const width = 13 + 9 * text.length;
  return (
    <g className={styles.alarms} transform={`translate(${x} ${-PLATE.height / 2})`}>
      <rect x={-width / 2} y={-10} width={width} height={20} rx={3} />
      {shown && (
        <text textAnchor="middle" y={5.5}>
          {text}
        </text>
      )}
    </g>
  );
}

/** The sheets behind a plate that stands for several switches. */
function Sheets({ width }: { width: number }) {
  return (
    <>
      {[8, 4].map((by) => (
        <rect
          key={by}
          className={`sheet ${styles.behind}`}
          x={-width / 2 + by}
          y={-PLATE.height / 2 + by}
          width={width}
          height={PLATE.height}
          rx={3}
        />
      ))}
    </>
  );
}

interface RegionProps {
  readonly region: NonNullable<PlateItem['region']>;
  readonly width: number;
  readonly named: boolean;
}

/** The MST region of a switch: a wash behind it, and its name where there is room. */
function RegionOf({ region, width, named }: RegionProps) {
  return (
    <>
      {region.hue >= 0 && (
        <rect
          className={styles.regionWash}
          style={{ fill: `var(--hue-${region.hue})` }}
          x={-width / 2 - 6}
          y={-PLATE.height / 2 - 22}
          width={width + 12}
          height={PLATE.height + 44}
          rx={9}
        />
      )}
      {named && (
        <text
          className="region-name"
          style={{ fill: region.hue >= 0 ? `var(--hue-${region.hue})` : 'var(--ink-2)' }}
          x={-width / 2}
          y={-PLATE.height / 2 - 10}
        >
          {region.name}
        </text>
      )}
    </>
  );
}
