/**
 * The one way to change a design: a list of typed edits, applied as a whole or not at all. Applying gives the new
 * design and the inverse list that takes it back.
 */
import { z } from 'zod';
import type { Fault } from './fault';
import { faultsOf } from './fault';
import { integrityFaults } from './rules/integrity';
import { VALUE_LIMITS, jsonFault, limitedJson } from './json-limits';
import type { Touch } from './rules/rule';
import { COLLECTIONS, KINDS, designSchema } from './schema';
import type { AnyElement, Design, ElementOf, Kind } from './schema';
import { clipped, documentMessages as say } from '../messages';

const limited = (value: unknown, context: z.RefinementCtx): void => {
  const fault = jsonFault(value, VALUE_LIMITS);
  if (fault !== null) context.addIssue({ code: 'custom', message: fault });
};

const SETTINGS = ['name', 'mode', 'costScale', 'bundleCost'] as const;
const kind = z.enum(KINDS as [Kind, ...Kind[]]);

/** What travels and is stored. Values are checked against the element's own schema when the edit is applied. */
export const editSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('add'),
    kind,
    value: z.looseObject({ id: z.string() }).superRefine(limited),
    at: z.int().min(0).optional(),
  }),
  z.strictObject({ type: z.literal('remove'), kind, id: z.string() }),
  /** `field` is a field of the element, or `field.key` for one entry of a per-VLAN table; null takes it away. */
  z.strictObject({
    type: z.literal('set'),
    kind,
    id: z.string(),
    field: z.string().regex(/^[a-zA-Z]+(\.\d+)?$/),
    value: limitedJson(VALUE_LIMITS),
  }),
  z.strictObject({ type: z.literal('settings'), field: z.enum(SETTINGS), value: z.string() }),
]);
export type Edit = z.infer<typeof editSchema>;

export type Applied = { ok: true; design: Design; inverse: Edit[] } | { ok: false; faults: Fault[] };

type Plain = Record<string, unknown>;

/** Edit that adds an element, at the end of its list or at an index. */
export function addElement<K extends Kind>(kindOf: K, value: ElementOf[K], at?: number): Edit {
  return { type: 'add', kind: kindOf, value: value, ...(at === undefined ? {} : { at }) };
}

/** Edit that sets one field of an element; undefined or null takes the field away. */
export function setField<K extends Kind>(
  kindOf: K,
  id: string,
  field:
    | (keyof ElementOf[K] & string)
    | `${'vlanPriority' | 'vlanCost' | 'instancePriority' | 'instanceCost' | 'vlanInstance' | 'map'}.${number}`,
  value: unknown,
): Edit {
  return { type: 'set', kind: kindOf, id, field, value: (value ?? null) as never };
}

/** Fields that are tables by VLAN or instance: their entries can be set one by one. */
export const TABLE_FIELDS: ReadonlySet<string> = new Set([
  'vlanPriority',
  'vlanCost',
  'instancePriority',
  'instanceCost',
  'vlanInstance',
  'map',
]);

const FIELDS = new Map<Kind, ReadonlySet<string>>();

/** Every field that an element of a kind may have, in any of its forms. */
function fieldsOf(of: Kind): ReadonlySet<string> {
  let known = FIELDS.get(of);
  if (!known) {
    const { schema } = COLLECTIONS[of];
    const shapes = 'options' in schema ? schema.options.map((o) => o.shape) : [schema.shape];
    FIELDS.set(of, (known = new Set(shapes.flatMap((shape) => Object.keys(shape)))));
  }
  return known;
}

/** Why a field cannot be set; null when it can. */
function fieldFault(of: Kind, id: string, field: string): string | null {
  const [outer, inner] = field.split('.') as [string, string?];
  if (outer === 'id') return say.idFixed(clipped(id));
  if (!fieldsOf(of).has(outer)) return say.noSuchField(of, outer);
  return inner !== undefined && !TABLE_FIELDS.has(outer) ? say.noTable(of, outer) : null;
}

const own = (table: Plain, key: string): unknown => (Object.hasOwn(table, key) ? table[key] : undefined);

function withField(element: Plain, field: string, value: unknown): { next: Plain; before: unknown } {
  const [outer, inner] = field.split('.') as [string, string?];
  const next = { ...element };
  if (inner === undefined) {
    const before = own(next, outer) ?? null;
    if (value === null) delete next[outer];
    else next[outer] = value;
    return { next, before };
  }
  const table = { ...(own(next, outer) as Plain | undefined) };
  const before = own(table, inner) ?? null;
  if (value === null) delete table[inner];
  else table[inner] = value;
  if (Object.keys(table).length === 0) delete next[outer];
  else next[outer] = table;
  return { next, before };
}

/** Lists that have been copied for writing, and where each element stands in them. */
class Draft {
  readonly lists = new Map<Kind, AnyElement[]>();
  private readonly places = new Map<Kind, Map<string, number>>();
  constructor(readonly base: Design) {}

  list(of: Kind): AnyElement[] {
    let list = this.lists.get(of);
    if (!list) this.lists.set(of, (list = [...this.base[COLLECTIONS[of].list]]));
    return list;
  }

  find(of: Kind, id: string): number {
    let places = this.places.get(of);
    if (!places) this.places.set(of, (places = new Map(this.list(of).map((e, i) => [e.id, i]))));
    return places.get(id) ?? -1;
  }

  insert(of: Kind, element: AnyElement, at?: number): void {
    const list = this.list(of);
    if (at === undefined || at >= list.length) {
      this.places.get(of)?.set(element.id, list.length);
      list.push(element);
    } else {
      list.splice(at, 0, element);
      this.places.delete(of);
    }
  }

  take(of: Kind, index: number): void {
    this.list(of).splice(index, 1);
    this.places.delete(of);
  }
}

/** A list of edits on its way through: what it has done so far, and what is wrong with it. */
class Application {
  readonly draft: Draft;
  readonly settings: Plain = {};
  readonly inverse: Edit[] = [];
  readonly touched = new Set<Touch>();
  readonly elements = new Map<Kind, Set<string>>();
  readonly faults: Fault[] = [];

  constructor(readonly design: Design) {
    this.draft = new Draft(design);
  }

  private refuse(n: number, code: string, sentence: string, subject?: Fault['subject']): void {
    this.faults.push({ code, path: ['edits', n], sentence, ...(subject && { subject }) });
  }

  private touch(of: Kind, id: string, field: string): void {
    this.touched.add(`${of}.${field}`);
    this.elements.set(of, (this.elements.get(of) ?? new Set()).add(id));
  }

  /** Applies the edit at place `n`. */
  apply(edit: Edit, n: number): void {
    const { draft, settings, inverse, design } = this;
    if (edit.type === 'settings') {
      inverse.unshift({ ...edit, value: String(settings[edit.field] ?? design[edit.field]) });
      settings[edit.field] = edit.value;
      this.touched.add('settings');
      return;
    }
    const id = edit.type === 'add' ? edit.value.id : edit.id;
    const subject = { kind: edit.kind, id };
    const index = draft.find(edit.kind, id);
    if (edit.type === 'add') {
      if (index >= 0) return this.refuse(n, 'duplicate-id', say.duplicateId(id), subject);
      draft.insert(edit.kind, edit.value as unknown as AnyElement, edit.at);
      inverse.unshift({ type: 'remove', kind: edit.kind, id });
    } else if (index < 0) {
      return this.refuse(n, 'no-target', say.noEditTarget(edit.kind, id), subject);
    } else if (edit.type === 'remove') {
      const value = draft.list(edit.kind)[index]!;
      draft.take(edit.kind, index);
      inverse.unshift({ type: 'add', kind: edit.kind, value, at: index });
    } else {
      const wrong = fieldFault(edit.kind, id, edit.field);
      if (wrong !== null) return this.refuse(n, edit.field === 'id' ? 'id-fixed' : 'unknown-field', wrong);
      const { next, before } = withField(draft.list(edit.kind)[index] as unknown as Plain, edit.field, edit.value);
      draft.list(edit.kind)[index] = next as unknown as AnyElement;
      inverse.unshift({ ...edit, value: before as never });
    }
    this.touch(edit.kind, id, edit.type === 'set' ? edit.field.split('.')[0]! : '*');
  }

  /** Checks each element that an edit touched by itself. */
  private checkElements(): void {
    for (const [of, ids] of this.elements)
      for (const id of ids) {
        const index = this.draft.find(of, id);
        if (index < 0) continue;
        const checked = COLLECTIONS[of].schema.safeParse(this.draft.list(of)[index]);
        if (checked.success) this.draft.list(of)[index] = checked.data;
        else this.faults.push(...faultsOf(checked.error, [COLLECTIONS[of].list, index]));
      }
  }

  private checkSettings({ name, mode, costScale, bundleCost }: Design): void {
    if (!this.touched.has('settings')) return;
    const checked = designSchema
      .pick({ name: true, mode: true, costScale: true, bundleCost: true })
      .safeParse({ name, mode, costScale, bundleCost });
    if (!checked.success) this.faults.push(...faultsOf(checked.error));
  }

  /** The design that all edits lead to; fills `faults` when something about it is wrong. */
  finish(): Design {
    const lists = Object.fromEntries([...this.draft.lists].map(([of, list]) => [COLLECTIONS[of].list, list]));
    const next = { ...this.design, ...this.settings, ...lists } as Design;
    this.checkSettings(next);
    this.checkElements();
    if (this.faults.length === 0) this.faults.push(...integrityFaults(next, this.touched));
    return next;
  }
}

/**
 * Applies all edits in turn, then validates the touched elements and the rules between elements. Either every edit
 * holds, or none and the faults say why. The path of a fault leads into the design as it would have become.
 */
export function applyEdits(design: Design, edits: readonly Edit[]): Applied {
  const application = new Application(design);
  edits.forEach((edit, n) => application.apply(edit, n));
  const { faults, inverse } = application;
  if (faults.length > 0) return { ok: false, faults };
  const next = application.finish();
  return faults.length > 0
    ? { ok: false, faults: faults.map((fault) => withSubject(next, fault)) }
    : { ok: true, design: next, inverse };
}

const KIND_OF_LIST = new Map<string, Kind>(KINDS.map((of) => [COLLECTIONS[of].list, of]));

/** A fault with the element that its path leads to, for those who must find what brought it about. */
function withSubject(design: Design, fault: Fault): Fault {
  const [list, index] = fault.path;
  const of = KIND_OF_LIST.get(String(list));
  const element = of && typeof index === 'number' ? design[COLLECTIONS[of].list][index] : undefined;
  return of && element ? { ...fault, subject: { kind: of, id: element.id } } : fault;
}

/** What an edit writes to: two lists of edits that share none of these can be applied in either order. */
export function editTargets(edits: readonly Edit[]): Set<string> {
  return new Set(
    edits.map((edit) =>
      edit.type === 'settings'
        ? `settings\n${edit.field}`
        : edit.type === 'set'
          ? `${edit.kind}\n${edit.id}\n${edit.field}`
          : `${edit.kind}\n${edit.type === 'add' ? edit.value.id : edit.id}`,
    ),
  );
}

/** Whether two lists of edits write to the same place, or one adds or removes what the other changes. */
export function editsCollide(a: readonly Edit[], b: readonly Edit[]): boolean {
  const [ta, tb] = [editTargets(a), editTargets(b)];
  const owner = (target: string) => target.split('\n').slice(0, 2).join('\n');
  return [...ta].some((t) => tb.has(t) || tb.has(owner(t))) || [...tb].some((t) => ta.has(owner(t)));
}
