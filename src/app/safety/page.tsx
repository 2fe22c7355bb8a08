import { SafetyPage } from '@/ui/rigs/safety-page';

export default function Page() {
  return <SafetyPage />;
}
