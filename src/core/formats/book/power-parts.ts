import { allOf, anyOf, fixed } from '../../units';
import { table, words, heading } from './blocks';
import { checkCountries, loadsOf, unfed, powerLeadsByPlugs, voltsIn } from '../../build';
import type { PartMaker } from './part';

export const power: PartMaker = {
  id: 'power',
  title: 'Power plan',
  blocks: ({ rig, length, mains }) => [
    ...(loadsOf(rig).length
      ? [
          table(
            ['Supply', 'Outlet', 'Volts', 'Plug', 'Return', 'Feeds', 'Load', 'Gives'],
            loadsOf(rig).map((l) => [
              l.place.supply.name,
              l.place.outlet.label,
              `${l.volts} V${l.place.outlet.ac ? ' AC' : ''}`,
              l.place.outlet.ac ? 'either way' : `centre ${l.place.outlet.centre ?? 'negative'}`,
              l.place.outlet.isolated ? 'its own' : 'shared',
              l.takers.map((t) => t.device.name).join(', ') || 'nothing',
              `${l.milliamps} mA`,
              `${l.place.outlet.milliamps} mA`,
            ]),
          ),
        ]
      : [words('There is no supply in this rig.')]),
    ...powerLeadsByPlugs(rig).map(({ plugs, leads }) =>
      words(
        `Leads ${plugs}: ` +
          leads
            .map((l) => `${l.device.name}${l.metres === null ? '' : ` ${length(l.metres)}`}`)
            .join(', ') +
          '.',
      ),
    ),
    ...(unfed(rig).length
      ? [
          words(
            `Without an outlet: ${unfed(rig)
              .map((t) => t.device.name)
              .join(', ')}.`,
          ),
        ]
      : []),
    heading('Mains'),
    words(
      `${Math.round(mains.watts)} W in all, ${fixed(mains.amps)} A at 230 V. Straight to ` +
        `the wall: ${mains.wall.map((d) => d.name).join(', ') || 'nothing'}.`,
    ),
    ...mains.strips.map((s) =>
      words(
        `${s.device.name}: ${s.plugs} of ${s.outlets} sockets ` +
          `(${s.feeds.map((d) => d.name).join(', ') || 'nothing'}), ${Math.round(s.watts)} W.`,
      ),
    ),
    ...(checkCountries(rig).length
      ? [
          table(
            ['Country', 'Mains', 'Plugs', 'Draws', 'Does not bear it'],
            checkCountries(rig).map((c) => [
              c.country.name,
              `${anyOf(voltsIn(c.country))} V, ${allOf(c.country.hz)} Hz`,
              c.country.plugs,
              `${fixed(c.amps)} A`,
              c.wrong
                .map((w) => `${w.device.name}${w.what === 'plug' ? ' (plug)' : ''}`)
                .join(', ') || 'nothing',
            ]),
          ),
        ]
      : []),
  ],
};
