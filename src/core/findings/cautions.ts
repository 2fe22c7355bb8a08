/** What hurts people, and who decides. Shown where it applies and printed whole. */
export const CAUTIONS: { id: string; title: string; words: string }[] = [
  {
    id: 'mains',
    title: 'Mains and protective earth',
    words:
      'Protective earth is never lifted and never defeated. Local electrical codes apply. ' +
      'Repairs inside mains equipment belong to a licensed technician. Outdoors only ' +
      'behind residual-current protection, with connectors out of the wet.',
  },
  {
    id: 'tubes',
    title: 'Tube amplifiers',
    words:
      'Lethal voltages inside, even when unplugged. Never without a load. Standby before speakers are changed.',
  },
  {
    id: 'speakers',
    title: 'Speaker lines',
    words:
      'Speaker leads, not instrument leads; the right impedance; a cabinet that bears the power.',
  },
  {
    id: 'hearing',
    title: 'Hearing',
    words:
      'In-ears with a limiter; first level with the ears out; feed-back and full-scale ' +
      'accidents happen. 85 dB(A) for eight hours, halved with every 3 dB, or ' +
      'the local rule.',
  },
  {
    id: 'radio',
    title: 'Radio',
    words: 'Wireless frequencies follow local spectrum law and are coordinated at the venue.',
  },
  {
    id: 'lifting',
    title: 'Lifting',
    words: 'Over about 23 kg two persons lift. Cases with wheels. Limits of airlines vary.',
  },
  {
    id: 'solder',
    title: 'Solder and adhesives',
    words:
      'Ventilation, eye protection, a hot iron in its stand. Solvents of adhesives ' +
      'likewise, and nothing is powered before they have set.',
  },
  {
    id: 'phantom',
    title: 'Phantom power',
    words:
      'On only where the input list says so, with the channel muted while it is switched; off ' +
      'everywhere else: it damages devices that do not expect it.',
  },
];
