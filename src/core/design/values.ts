/** The values that fields of the document may have, each with the sentence for a wrong one. */
import { z } from 'zod';
import {
  BRIDGE_PRIORITY,
  COST_RANGE,
  INSTANCE_ID,
  PORT_PRIORITY,
  REGION_NAME_OCTETS,
  REVISION,
  VLAN_ID,
  canonicalMac,
  isIndividualMac,
  parseVlanRanges,
} from '../standard';
import { MISSING_VALUE, NAME_LENGTH, SHEET_EDGE, documentMessages as say } from '../messages';

/** A sentence for a wrong value. A missing one gets its sentence from `faultsOf`, which knows the element that it is missing from. */
export const saying = (sentence: (value: unknown) => string) => ({
  error: (issue: { input?: unknown }) => (issue.input === undefined ? MISSING_VALUE : sentence(issue.input)),
});

export const stepped = (range: { step: number; max: number }, sentence: (value: unknown) => string) =>
  z
    .int(saying(sentence))
    .min(0, saying(sentence))
    .max(range.max, saying(sentence))
    .multipleOf(range.step, saying(sentence));

export const whole = (min: number, max: number, sentence: (value: unknown) => string) =>
  z.int(saying(sentence)).min(min, saying(sentence)).max(max, saying(sentence));

export const choice = <const T extends readonly [string, ...string[]]>(what: string, values: T) =>
  z.enum(
    values,
    saying((value) => say.oneOf(what, value, values)),
  );

export const id = z
  .string(saying(() => say.missing('An id')))
  .regex(
    /^\S+$/,
    saying(() => say.missing('An id without blanks')),
  )
  .max(
    120,
    saying((value) => say.tooLong('An id', String(value).length, 120)),
  );
export const name = z.string(saying(say.name)).trim().min(1, saying(say.name)).max(NAME_LENGTH, saying(say.name));
export const coordinate = z
  .number(saying(say.coordinate))
  .min(-SHEET_EDGE, saying(say.coordinate))
  .max(SHEET_EDGE, saying(say.coordinate));
export const bridgePriority = stepped(BRIDGE_PRIORITY, say.bridgePriority);
export const portPriority = stepped(PORT_PRIORITY, say.portPriority);
/** Written on the wider scale; integrity narrows it to the scale of the switch. */
export const pathCost = whole(COST_RANGE.long.min, COST_RANGE.long.max, (v) => say.cost(v));
export const vlanNumber = whole(VLAN_ID.min, VLAN_ID.max, say.vlan);

export const vlanKey = z.string().refine((key) => /^[1-9]\d*$/.test(key) && Number(key) <= VLAN_ID.max, {
  error: (issue) => say.vlan(issue.input),
});
export const perVlan = <T extends z.ZodType>(value: T) => z.record(vlanKey, value).optional();

export const instanceKey = z.string().refine((key) => /^[1-9]\d*$/.test(key) && Number(key) <= INSTANCE_ID.max, {
  error: (issue) => say.instance(issue.input),
});
/** By MSTID; 0 is the CIST alone, where what is set for all trees should not follow. */
export const perInstance = <T extends z.ZodType>(value: T) =>
  z
    .record(
      z.string().refine((key) => /^(0|[1-9]\d*)$/.test(key) && Number(key) <= INSTANCE_ID.max, {
        error: (issue) => say.instance(issue.input),
      }),
      value,
    )
    .optional();
export const regionName = z
  .string(saying(say.regionName))
  .refine((text) => new TextEncoder().encode(text).length <= REGION_NAME_OCTETS, saying(say.regionName));
export const revision = whole(REVISION.min, REVISION.max, say.revision);

export const vlanSet = z.string(saying(say.vlanList)).superRefine((text, context) => {
  if (text === 'all') return;
  const parsed = parseVlanRanges(text);
  if (!parsed.ok) context.addIssue({ code: 'custom', message: say.vlanSet(text, parsed.part, parsed.reason) });
});

export const mac = z.string(saying(say.mac)).superRefine((text, context) => {
  const canonical = canonicalMac(text);
  if (canonical !== text) context.addIssue({ code: 'custom', message: say.mac(text) });
  else if (!isIndividualMac(text)) context.addIssue({ code: 'custom', message: say.groupMac(text) });
});

export const TIERS = ['core', 'distribution', 'access'] as const;
