import { notFound } from 'next/navigation';
import { database } from '@/server/database';
import { findDesign } from '@/server/designs';
import { Problem } from '@/server/problem';
import { loadVariant } from '@/server/variants';
import { Workbench } from '@/ui/shell/Workbench';
import { isStage } from '@/ui/shell/stages';

export const dynamic = 'force-dynamic';

type Query = Record<string, string | string[] | undefined>;

/** The variant asked for, or the first one when the address names none or one that is gone. */
function open(designId: string, query: Query) {
  try {
    const design = findDesign(database(), designId);
    const wanted = design.variants.find((v) => v.id === query.variant) ?? design.variants[0]!;
    return { design, variant: loadVariant(database(), wanted.id) };
  } catch (error) {
    if (error instanceof Problem && error.status === 404) notFound();
    throw error;
  }
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
  const { design, variant } = open(designId, query);
  const pairs = Object.entries(query).flatMap(([key, value]) => [value ?? []].flat().map((v) => [key, v]));
  return (
    <Workbench key={variant.id} head={design} variant={variant} stage={stage} query={`${new URLSearchParams(pairs)}`} />
  );
}
