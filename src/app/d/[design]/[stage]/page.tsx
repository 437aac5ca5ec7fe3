import { notFound } from 'next/navigation';
import type { DesignHead } from '@/api/contract';
import { ask, withPage } from '@/server/ask';
import type { Asked } from '@/server/ask';
import { OpenDesign } from '@/ui/workspace/OpenDesign';
import { Trouble } from '@/ui/controls/Trouble';
import { isStage } from '@/ui/session/stages';

export const dynamic = 'force-dynamic';

type Query = Record<string, string | string[] | undefined>;

/** A page in the place of a design that cannot be shown. */
function refusal({ status, sentence }: Extract<Asked, { ok: false }>) {
  if (status === 404) notFound();
  return <Trouble title="This design cannot be opened" sentence={sentence} />;
}

export default async function DesignPage({
  params,
  searchParams,
}: {
  params: Promise<{ design: string; stage: string }>;
  searchParams: Promise<Query>;
}) {
  const { design: designId, stage } = await params;
  if (!isStage(stage)) notFound();
  const query = await searchParams;
  const found = await ask('design', { design: designId });
  if (!found.ok) return refusal(found);
  const head = JSON.parse(found.text) as DesignHead;
  // The variant asked for, or the first one when the address names none or one that is gone.
  const wanted = head.variants.find((v) => v.id === query.variant) ?? head.variants[0];
  if (!wanted) return refusal({ ok: false, status: 422, sentence: 'The design has no variant.' });
  const variant = await ask('variant', { variant: wanted.id });
  if (!variant.ok) return refusal(variant);
  const pairs = Object.entries(query).flatMap(([key, value]) => [value ?? []].flat().map((v) => [key, v]));
  const address = `${new URLSearchParams(pairs)}`;
  return (
    <OpenDesign
      key={wanted.id}
      head={head}
      variantId={wanted.id}
      variantText={withPage(variant.text)}
      stage={stage}
      query={address}
    />
  );
}
