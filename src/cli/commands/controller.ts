import { controllerNeeds, judge, ranked } from '../../core/songs';
import { command } from '../command';
import { howMany } from '../../core/units';

export const controller = command({
  name: 'controller',
  about:
    'what a foot controller has to do for the rig and its songs, and how each candidate does it',
  options: [],
  run: (rig) => {
    const needs = controllerNeeds(rig);
    const name = (id: string) => rig.candidates?.find((c) => c.id === id)?.name ?? id;
    const judged = ranked(
      rig,
      (rig.candidates ?? []).map((c) => judge(rig, needs, c)),
    );
    return {
      json: {
        rig: rig.name,
        needs,
        candidates: judged.map((j) => ({ name: name(j.candidate), ...j })),
      },
      lines: [
        `${howMany(needs.switches.count, 'switch', 'switches')} at once, ${howMany(needs.pedals.count, 'pedal')}, ` +
          `${howMany(needs.letters.count, 'letter')} for "${needs.letters.longest}"`,
        ...judged.map(
          (j) =>
            `${name(j.candidate)}: ${j.misses ? `misses ${j.misses}` : 'does it all'}; ` +
            j.points.map((p) => `${p.met ? '' : 'NOT '}${p.need} (${p.why})`).join('; '),
        ),
        ...(judged.length ? [] : ['No candidates: enter them under Songs, Controller.']),
      ],
    };
  },
});
