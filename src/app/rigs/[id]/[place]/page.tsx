import { notFound } from 'next/navigation';
import { isPlace } from '@/ui/frame/place-list';
import { Place } from '@/ui/frame/places';

export default async function PlacePage({ params }: { params: Promise<{ place: string }> }) {
  const { place } = await params;
  if (!isPlace(place)) notFound();
  return <Place id={place} />;
}
