import { redirect } from 'next/navigation';

export default async function DesignRoot({ params }: { params: Promise<{ design: string }> }) {
  redirect(`/d/${encodeURIComponent((await params).design)}/trees`);
}
