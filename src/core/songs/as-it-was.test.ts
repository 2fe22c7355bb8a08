import { DEMO_RIGS } from '../demo';
import { digest } from '../testing/digest';
import * as songs from '.';

test.each(DEMO_RIGS.map((r) => [r.id, r] as const))(
  'songs of %s come to what they came to',
  (_, rig) => {
    const [sound] = rig.sounds;
    expect({
      remarks: digest(songs.songRemarks(rig)),
      songs: (rig.songs ?? []).map((song) =>
        digest([
          songs.timelineOf(song),
          songs.cueSheet(rig, song),
          songs
            .tempoDevices(rig)
            .map((d) => [songs.delayTimes(rig, song, d), songs.soundsIn(rig, song, d)]),

          songs.dueChanges(rig, song),
        ]),
      ),
      sets: (rig.sets ?? []).map((set) => digest([songs.runningOrder(rig, set)])),
      labels: digest(songs.allScenes(rig).map((s) => songs.displayLabels(rig, rig.songs?.[0], s))),
      numbers: digest(songs.programDevices(rig).map((m) => songs.numberSounds(rig, m.device.id))),
      map: digest([songs.programMap(rig), songs.soundUse(rig)]),
      needs: digest([
        songs.controllerNeeds(rig),
        songs.pagesFor(rig, '', 4),
        (rig.songs ?? []).map((s) => songs.pagesFor(rig, s.id, 6)),
      ]),
      standIns: sound
        ? rig.devices
            .filter((_d, i) => i % 5 === 0)
            .map((d) => digest(songs.substitutesFor(rig, d.id, sound)))
        : [],
    }).toMatchSnapshot();
  },
);
