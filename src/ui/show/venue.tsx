import {
  type Country,
  checkCountries,
  countryOf,
  inSentence,
  misfitsAt,
  voltsIn,
} from '../../core/build';
import { kindOf } from '../../core/kinds';
import type { Show } from '../../core/show/book';
import { useDocument } from '../store/use-rig';
import { anyOf } from '../../core/units';

/** What the mains and the plugs of the country ask of the rig. */
export function Venue({ show }: { show: Show }) {
  const rig = useDocument();
  const country = countryOf(show.country);
  if (!country) return null;
  const [check] = checkCountries({ ...rig, tour: { countries: [country.code] } });
  return (
    <div data-venue={country.code}>
      <h3>In {inSentence(country)}</h3>
      <p>
        {anyOf(voltsIn(country))} V, {anyOf(country.hz)} Hz, plugs {country.plugs}. The rig draws up
        to {check ? check.amps.toFixed(1) : '?'} A.
      </p>
      {check && check.wrong.length > 0 ? (
        <ul>
          {check.wrong.map((w) => (
            <li key={`${w.device.id} ${w.what}`}>
              <strong>{w.device.name}</strong>: {WRONG[w.what]}
            </li>
          ))}
        </ul>
      ) : (
        <p>Everything in the rig is made for that.</p>
      )}
      {show.volts !== null && <Measured volts={show.volts} country={country} />}
      <Radio country={country} />
    </div>
  );
}

/** What was measured at the socket: how far off it is, and who does not bear it. */
function Measured({ volts, country }: { volts: number; country: Country }) {
  const rig = useDocument();
  const isOff = !voltsIn(country).some((v) => Math.abs(v - volts) <= v / 10);
  const wrong = misfitsAt(rig, volts, country.hz);
  return (
    <>
      {isOff && (
        <p role="alert">
          {volts} V is more than a tenth off. Ask the house electrician before anything is plugged
          in.
        </p>
      )}
      {wrong.length > 0 && (
        <ul data-measured={volts}>
          {wrong.map((w) => (
            <li key={w.device.id}>
              <strong>{w.device.name}</strong>, at the {volts} V that were measured: {WRONG[w.what]}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** Radio links of the rig: what is allowed is for the authority of the country to say. */
function Radio({ country }: { country: Country }) {
  const rig = useDocument();
  const links = rig.devices.filter((d) => kindOf(d.kind).job === 'wireless').map((d) => d.name);
  if (!links.length) return null;
  return (
    <p data-radio={links.length}>
      {links.length === 1 ? 'One radio link' : `${links.length} radio links`} ({links.join(', ')}):
      ask the venue for free channels before the line check. Which bands and powers are allowed in{' '}
      {inSentence(country)} is for its radio authority to say.
    </p>
  );
}

const WRONG = {
  over: 'not made for so high a voltage; it would be destroyed',
  under: 'not made for so low a voltage',
  hz: 'not made for that frequency',
  selector: 'nobody has said how its voltage selector is set',
  plug: 'its plug goes into no socket there; take an adapter that carries the protective earth',
} as const;
