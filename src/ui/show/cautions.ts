/** The usual cautions at a show. Local codes and licensed practice go before all of them. */
export const LIVE_CAUTIONS = {
  hearing:
    'Hearing: in-ears out of the ears until the level is known; a loud stage wants plugs. ' +
    'What is lost does not come back.',
  mains:
    'Mains: the house electrician, or whoever is licensed here, deals with what is behind a socket. ' +
    'Local codes hold. Never lift a protective earth against hum.',
  tubes:
    'Tube amplifiers: standby and mains off before a loudspeaker line is opened; high voltage stays ' +
    'inside after the plug is out. Opening one is for those who are trained to.',
  radio:
    'Radio: only on frequencies that are allowed in this country and coordinated with the house.',
  lifting: 'Lifting: two people on every case over 23 kg; ramps and wheels before backs.',
} as const;
