import type { Scene } from '../../../core/control/scene';
import { PAD_KEYS } from './pad-keys';

/** The pads of a foot controller, one for each scene; the first nine have a key. */
export function Pads({
  pads,
  name,
  wanted,
  onPress,
}: {
  pads: readonly Scene[];
  name: (scene: Scene) => string;
  /** The scene that is wanted, where one is. */
  wanted?: Scene;
  onPress: (scene: Scene, place: number) => void;
}) {
  return (
    <div className="pads">
      {pads.map((p, i) => (
        <button
          key={p.id}
          type="button"
          className="pad"
          data-pad={p.id}
          data-wanted={wanted && p.id === wanted.id}
          onClick={() => onPress(p, i)}
        >
          {i < 9 && <kbd>{PAD_KEYS[i]}</kbd>}
          {name(p)}
        </button>
      ))}
    </div>
  );
}
