import { handleApi } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = handleApi;
export const HEAD = handleApi;
export const POST = handleApi;
export const PUT = handleApi;
export const PATCH = handleApi;
export const DELETE = handleApi;
export const OPTIONS = handleApi;
