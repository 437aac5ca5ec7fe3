/** What the pointer does on the cabling: move things, pull cables, frame a part, paint a VLAN along links. */
import type { ChartHandle } from '../chart/hands';
import { layOut, placesOf } from '../chart/cabling-scene';
import type { Looks, Places } from '../chart/cabling-scene';
import type { Point } from '../chart/geometry';
import type { Chosen } from '../../core/editing';
import type { Ref } from '../session/view';
import { isThing } from './actions';
import { moveNote, noteAt, putNote } from './note-gestures';
import { SLACK, drawPath, swallowClick, thingAt, wireAt } from './pointing';
import type { Gesture, GestureHost } from './pointing';
import { snapped } from './snap';

/** A cable that ends on empty paper this far away makes a switch there. */
const FAR_ENOUGH = 70;

const keyOf = (thing: Chosen) => `${thing.kind} ${thing.id}`;

const placeIn = (places: Places, { kind, id }: Chosen): Point =>
  (kind === 'switch' ? places.switches : kind === 'host' ? places.hosts : places.segments).get(id)!;

/** Places with some things moved; hosts without a place go along with their switch. */
export function placesWith(looks: Looks, places: Places, moved: ReadonlyMap<string, Point>): Places {
  const { design } = looks;
  const at = design.switches.map((s) => moved.get(`switch ${s.id}`) ?? places.switches.get(s.id)!);
  const next = placesOf(design, at);
  const over = (kind: 'host' | 'segment', map: ReadonlyMap<string, Point>) =>
    new Map([...map].map(([id, point]) => [id, moved.get(`${kind} ${id}`) ?? point]));
  return { switches: next.switches, hosts: over('host', next.hosts), segments: over('segment', next.segments) };
}

export class Gestures {
  constructor(private readonly host: GestureHost) {}

  /** A press on the chart; true when it starts something of ours. */
  press(event: PointerEvent): boolean {
    const chart = this.host.chart();
    const element = event.target as Element;
    if (!chart) return false;
    const tool = this.host.tool();
    const thing = thingAt(element);
    if (thing && (tool === 'cable' || element.hasAttribute('data-grip')))
      return this.run(this.cable(chart, thing, event));
    if (tool === 'note') return this.run(putNote(this.host, chart, event));
    const note = noteAt(element);
    if (note) return this.run(moveNote(this.host, chart, note.id, note.corner, event));
    if (tool === 'paint') {
      const wire = wireAt(element);
      return wire !== null && this.run(this.paint(wire));
    }
    if (thing) return this.run(this.move(chart, thing, event));
    if (event.shiftKey && !element.closest('[data-id]')) return this.run(this.frame(chart, event));
    return false;
  }

  private run(gesture: Gesture): boolean {
    let frame = 0;
    let last: PointerEvent | null = null;
    const onMove = (event: PointerEvent) => {
      last = event;
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        gesture.move(last!);
      });
    };
    const stop = () => {
      cancelAnimationFrame(frame);
      window.removeEventListener('pointermove', onMove);
      window.removeEventListener('pointerup', onUp);
      window.removeEventListener('keydown', onKey, true);
    };
    const onUp = (event: PointerEvent) => {
      stop();
      gesture.end(event);
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.preventDefault();
      event.stopPropagation();
      stop();
      gesture.giveUp();
    };
    window.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', onUp);
    window.addEventListener('keydown', onKey, true);
    return true;
  }

  private move(chart: ChartHandle, grabbed: Chosen, start: PointerEvent): Gesture {
    const { host } = this;
    const [looks, places] = [host.looks(), host.places()];
    const chosen = host.selection().filter(isThing);
    const together = chosen.some((c) => c.kind === grabbed.kind && c.id === grabbed.id) ? chosen : [grabbed];
    const from = chart.toDrawing(start.clientX, start.clientY);
    const home = placeIn(places, grabbed);
    const moving = new Set(together.map(keyOf));
    const others = [...places.switches].filter(([id]) => !moving.has(`switch ${id}`)).map(([, p]) => p);
    let moved: Map<string, Point> | null = null;
    const to = (event: PointerEvent) => {
      const now = chart.toDrawing(event.clientX, event.clientY);
      const wanted = { x: home.x + now.x - from.x, y: home.y + now.y - from.y };
      const { point, guides } = snapped(wanted, event.altKey ? [] : others);
      const [dx, dy] = [point.x - home.x, point.y - home.y];
      const map = new Map(
        together.map((thing) => {
          const at = placeIn(places, thing);
          return [keyOf(thing), { x: at.x + dx, y: at.y + dy }] as const;
        }),
      );
      return { map, guides };
    };
    const clear = () => chart.overlay.replaceChildren();
    return {
      move: (event) => {
        if (!moved && Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) < SLACK) return;
        const { map, guides } = to(event);
        moved = map;
        chart.preview(layOut(looks, placesWith(looks, places, map)));
        drawPath(chart, 'guide', guides);
      },
      end: (event) => {
        clear();
        if (!moved) return;
        swallowClick();
        host.moved(to(event).map);
      },
      giveUp: () => {
        clear();
        chart.preview(layOut(looks, places));
      },
    };
  }

  private cable(chart: ChartHandle, from: Chosen, start: PointerEvent): Gesture {
    const { host } = this;
    const origin = placeIn(host.places(), from);
    const under = (event: PointerEvent) => thingAt(document.elementFromPoint(event.clientX, event.clientY));
    const mark = (thing: Chosen | null) => {
      for (const el of chart.svg.querySelectorAll('.is-target')) el.classList.remove('is-target');
      if (thing)
        chart.svg
          .querySelector(`[data-kind="${thing.kind}"][data-id="${CSS.escape(thing.id)}"]:not(.wire)`)
          ?.classList.add('is-target');
    };
    const clear = () => {
      mark(null);
      chart.overlay.replaceChildren();
    };
    let pulled = false;
    return {
      move: (event) => {
        pulled ||= Math.hypot(event.clientX - start.clientX, event.clientY - start.clientY) >= SLACK;
        const to = chart.toDrawing(event.clientX, event.clientY);
        drawPath(chart, 'draft', `M${origin.x} ${origin.y}L${to.x} ${to.y}`);
        mark(under(event));
      },
      end: (event) => {
        clear();
        if (!pulled) return;
        swallowClick();
        const thing = under(event);
        if (thing) return host.cabled(from, thing);
        const at = chart.toDrawing(event.clientX, event.clientY);
        if (Math.hypot(at.x - origin.x, at.y - origin.y) > FAR_ENOUGH) host.cabledTo(from, at);
      },
      giveUp: clear,
    };
  }

  private frame(chart: ChartHandle, start: PointerEvent): Gesture {
    const { host } = this;
    const a = chart.toDrawing(start.clientX, start.clientY);
    const box = (event: PointerEvent) => {
      const b = chart.toDrawing(event.clientX, event.clientY);
      return {
        left: Math.min(a.x, b.x),
        right: Math.max(a.x, b.x),
        top: Math.min(a.y, b.y),
        bottom: Math.max(a.y, b.y),
      };
    };
    const clear = () => chart.overlay.replaceChildren();
    return {
      move: (event) => {
        const { left, right, top, bottom } = box(event);
        drawPath(chart, 'band', `M${left} ${top}H${right}V${bottom}H${left}Z`);
      },
      end: (event) => {
        clear();
        const { left, right, top, bottom } = box(event);
        const inside = ({ x, y }: Point) => x >= left && x <= right && y >= top && y <= bottom;
        const places = host.places();
        const found = (kind: Chosen['kind'], map: ReadonlyMap<string, Point>): Ref[] =>
          [...map].filter(([, p]) => inside(p)).map(([id]) => ({ kind, id }));
        const refs = [
          ...found('switch', places.switches),
          ...found('host', places.hosts),
          ...found('segment', places.segments),
        ];
        if (right - left < SLACK) return;
        swallowClick();
        host.selectMany(refs);
      },
      giveUp: clear,
    };
  }

  private paint(first: string): Gesture {
    const { host } = this;
    const on = host.paintsOn(first);
    const wires = new Set([first]);
    const elements = new Set<Element>();
    const touch = (element: Element | null) => {
      const wire = wireAt(element);
      const group = element?.closest('.wire');
      if (wire === null || !group) return;
      wires.add(wire);
      elements.add(group);
      group.classList.add('is-painted');
    };
    const clear = () => elements.forEach((el) => el.classList.remove('is-painted'));
    return {
      move: (event) => touch(document.elementFromPoint(event.clientX, event.clientY)),
      end: () => {
        clear();
        swallowClick();
        host.painted([...wires], on);
      },
      giveUp: clear,
    };
  }
}
