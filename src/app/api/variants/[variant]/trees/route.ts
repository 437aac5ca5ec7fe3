import { solutionOf } from '@/core/formats';
import { solveDesign } from '@/core/trees';
import { database } from '@/server/database';
import { answer, json } from '@/server/http';
import { notFound } from '@/server/problem';
import { loadVariant } from '@/server/variants';

export const GET = (request: Request, { params }: { params: Promise<{ variant: string }> }) =>
  answer(async () => {
    const { design } = loadVariant(database(), (await params).variant);
    const solved = solveDesign(design);
    const wanted = new URL(request.url).searchParams.get('tree');
    if (wanted === null) return json({ trees: solved.trees.map(({ tree, fold }) => ({ ...tree, fold })) });
    const of = solved.byId.get(wanted);
    if (!of) throw notFound('tree', wanted);
    return json(solutionOf(solved, of));
  });
