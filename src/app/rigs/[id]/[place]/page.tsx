import { notFound } from 'next/navigation';
import { BriefView } from '@/ui/brief/brief-view';
import { BuildView } from '@/ui/build/build-view';
import { ControlView } from '@/ui/control/control-view';
import { HistoryView } from '@/ui/history/history-view';
import { SignalView } from '@/ui/signal/signal-view';
import { SongsPlace } from '@/ui/songs/songs-place';
import { SoundsView } from '@/ui/sounds/sounds-view';

const PLACES: Record<string, () => React.JSX.Element> = {
  brief: BriefView,
  signal: SignalView,
  sounds: SoundsView,
  control: ControlView,
  songs: SongsPlace,
  build: BuildView,
  history: HistoryView,
};

export default async function PlacePage({ params }: { params: Promise<{ place: string }> }) {
  const { place } = await params;
  const View = Object.hasOwn(PLACES, place) ? PLACES[place] : undefined;
  if (!View) notFound();
  return <View />;
}
