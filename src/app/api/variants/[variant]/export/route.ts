import { database } from '@/server/database';
import { findDesign } from '@/server/designs';
import { exportFile } from '@/server/export';
import { answer } from '@/server/http';
import { loadVariant } from '@/server/variants';

export const GET = (request: Request, { params }: { params: Promise<{ variant: string }> }) =>
  answer(async () => {
    const variant = loadVariant(database(), (await params).variant);
    const format = new URL(request.url).searchParams.get('format') ?? 'json';
    return exportFile(findDesign(database(), variant.designId).name, variant, format);
  });
