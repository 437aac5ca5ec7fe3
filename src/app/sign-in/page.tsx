import { SignIn } from '@/ui/workspace/SignIn';

export const dynamic = 'force-dynamic';

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to = '/' } = await searchParams;
  // Only to a page of this server.
  return <SignIn to={/^\/(?![/\\])/.test(to) ? to : '/'} />;
}
