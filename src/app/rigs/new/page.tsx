import { NewRig } from '@/ui/rigs/new-rig';

export default function NewRigPage() {
  return <NewRig />;
}
