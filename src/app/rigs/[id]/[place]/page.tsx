import { notFound } from 'next/navigation';
import { BriefView } from '@/ui/brief/brief-view';
import { HistoryView } from '@/ui/history/history-view';
import { SignalView } from '@/ui/signal/signal-view';
import { SoundsView } from '@/ui/sounds/sounds-view';

const PLACES: Record<string, () => React.JSX.Element> = { brief: BriefView, signal: SignalView, sounds: SoundsView, history: HistoryView };

export default async function PlacePage({ params }: { params: Promise<{ place: string }> }) {
  const { place } = await params;
  const View = Object.hasOwn(PLACES, place) ? PLACES[place] : undefined;
  if (!View) notFound();
  return <View />;
}
