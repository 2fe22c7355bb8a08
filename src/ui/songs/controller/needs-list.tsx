import type { Needs } from '../../../core/songs';
import { allOf, howMany } from '../../../core/units';
/** What a foot controller has to do for this rig and these songs, with reasons. */
export function NeedsList({ needs }: { needs: Needs }) {
  return (
    <>
      <h3 className="common-gap">What it has to do</h3>
      <ul data-list="needs" className="controller-view-box">
        <li>
          <strong>{howMany(needs.switches.count, 'switch', 'switches')} at once</strong>:{' '}
          {howMany(needs.switches.sounds, 'sound')}
          {needs.switches.song ? ` in ${needs.switches.song}, more than in any other song` : ''}
          {needs.switches.always.length ? `, and always ${allOf(needs.switches.always)}` : ''}.
        </li>
        <li>
          <strong>
            {needs.pedals.count} {needs.pedals.count === 1 ? 'pedal' : 'pedals'}
          </strong>
          {needs.pedals.names.length
            ? `: ${needs.pedals.names.join(', ')}`
            : ': nothing is moved by one'}
          .
        </li>
        {needs.sends.map((s) => (
          <li key={s.message}>
            <strong>
              Sends{' '}
              {s.message === 'control'
                ? 'control changes'
                : s.message === 'program'
                  ? 'programs'
                  : 'clock'}
            </strong>
            : {s.because}.
          </li>
        ))}
        <li>
          <strong>{needs.twoWay.needed ? 'Hears back' : 'Need not hear back'}</strong>:{' '}
          {needs.twoWay.because}.
        </li>
        <li>
          <strong>{needs.letters.count} letters</strong> show the longest name, “
          {needs.letters.longest}”, whole.
        </li>
      </ul>
    </>
  );
}
