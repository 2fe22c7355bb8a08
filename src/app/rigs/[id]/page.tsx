import { redirect } from 'next/navigation';

/** What the code on a case opens: the rig at its signal. */
export default async function RigPage({ params }: { params: Promise<{ id: string }> }) {
  redirect(`/rigs/${encodeURIComponent((await params).id)}/signal`);
}
