import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { KINDS } from '../src/core/kinds';
import { ORDER_RULES } from '../src/core/order';
import { rigSchema } from '../src/core/rig';

/**
 * Writes the documents that are made from the code: the JSON Schema of a rig file, and the list of
 * kinds. With --check it only compares.
 */
const schema = `${JSON.stringify({ title: 'Yantrel rig, version 1', ...z.toJSONSchema(rigSchema, { io: 'input' }) }, null, 2)}\n`;

const kinds = KINDS.map((k) => {
  const row = (cells: (string | number)[]) => `| ${cells.join(' | ')} |`;
  const figures = k.figures.length
    ? [
        '',
        '| figure | means | typical | range | why |',
        '| --- | --- | --- | --- | --- |',
        ...k.figures.map((f) =>
          row([`\`${f.id}\``, f.label, `${f.typical} ${f.unit}`, `${f.min} to ${f.max}`, f.reason]),
        ),
      ]
    : [];
  const parameters = k.parameters.map((p) =>
    p.type === 'knob'
      ? `\`${p.id}\` (${p.label}, ${p.min} to ${p.max}${p.unit ? ` ${p.unit}` : ''}, starts at ${p.initial})`
      : p.type === 'choice'
        ? `\`${p.id}\` (${p.label}: ${p.options.map((o) => `"${o.value}"`).join(', ')})`
        : p.type === 'text'
          ? `\`${p.id}\` (${p.label}, a text)`
          : `\`${p.id}\` (${p.label}, true or false)`,
  );
  const jack = (j: (typeof k.jacks)[number]) =>
    [
      `${j.direction}, ${j.signal}, ${j.connector}`,
      j.pair && `${j.pair.side} of a pair with \`${j.pair.with}\``,
      j.stereo && 'right side on the ring',
      j.insert && 'send on the tip, return on the ring',
      j.channels && `${j.channels.length} ${j.channels.length === 1 ? 'channel' : 'channels'}`,
      j.carriesControl && 'carries control',
      j.usb && `USB ${j.usb}`,
      j.gives && `gives ${j.gives}`,
      j.reads &&
        `reads ${j.reads.what}${j.reads.wiper ? `, wiper on the ${j.reads.wiper}` : ''}${j.reads.action ? `, ${j.reads.action}` : ''}${j.reads.contact ? `, ${j.reads.contact} at rest` : ''}`,
    ]
      .filter(Boolean)
      .join(', ');
  const [outer, inner] = [k.jacks.filter((j) => !j.inside), k.jacks.filter((j) => j.inside)];
  const opens = {
    send: 'a plug in the send opens it',
    return: 'a plug in the return opens it',
    never: 'plugs do not change the way inside',
  };
  const more = [
    inner.length
      ? `Inner points for links: ${inner.map((j) => `\`${j.id}\` (${j.direction})`).join(', ')}.`
      : '',
    k.loops?.length
      ? `Loops: ${k.loops.map((l) => `${l.label} (${l.send.map((x) => `\`${x}\``).join(', ')} ` + `to ${l.return.map((x) => `\`${x}\``).join(', ')}; ${opens[l.opensAt]})`).join('; ')}.`
      : '',
    k.hosts
      ? `Host: ${k.hosts.slots} slots, ${k.hosts.percent} % of ` +
        `processing, ${k.hosts.paths} ${k.hosts.paths === 1 ? 'path' : 'paths'}; correct ` +
        `them with the figures \`slots\`, \`percent\`, \`paths\`.`
      : '',
    k.block
      ? 'As a block inside a ' +
        `host: ${k.block.slots} ${k.block.slots === 1 ? 'slot' : 'slots'}, ${k.block.percent} ` +
        `% (figures \`slots\`, \`percent\`).`
      : '',
    k.destination ? `A destination for: ${k.destination.hears}.` : '',
    k.midi
      ? `MIDI: ${[k.midi.programs && `takes programs (${k.midi.programs.count}, bank select ${k.midi.programs.bank}, ` + `screen from ${k.midi.programs.shows.from}${k.midi.programs.shows.size ? `, banks of ${k.midi.programs.shows.size}` : ''})`, k.midi.controls?.length && `control changes ${k.midi.controls.map((c) => `${c.cc} \`${c.setting}\` (${c.ways.join(' or ')})`).join(', ')}`, k.midi.clock && { can: 'can follow clock', wants: 'is made to follow clock', leads: 'leads with clock' }[k.midi.clock], k.midi.sends && `can send ${k.midi.sends.join(', ')}`, k.midi.commands && 'sounds are called on it', k.midi.recalls && 'sends a list of its own when a program is called', k.midi.reports && 'reports back', `thru ${k.midi.thrus.join(' or ')}`].filter(Boolean).join('; ')}.`
      : '',
    k.tempo ? `Tempo: the setting \`${k.tempo.setting}\` as a ${k.tempo.is}.` : '',
    k.programs ? 'Has programs: one press changes everything in it.' : '',
    k.outlets
      ? `Outlets: ${k.outlets.map((o) => `\`${o.id}\` (${o.volts} V, ${o.milliamps} mA${o.isolated ? ', isolated' : ''})`).join(', ')}.`
      : '',
    k.earth ? 'Has a mains lead with protective earth.' : '',
  ].filter(Boolean);
  return [
    `### \`${k.id}\`: ${k.name}`,
    '',
    k.about,
    '',
    `${outer.length ? `Jacks: ${outer.map((j) => `\`${j.id}\` (${jack(j)})`).join(', ')}.` : 'No jacks.'}${k.alwaysOn ? ' Always on.' : k.startsEngaged ? ' Engaged unless said otherwise.' : ' Bypassed unless said otherwise.'}`,
    ...(parameters.length ? ['', `Settings: ${parameters.join(', ')}.`] : []),
    ...more.flatMap((m) => ['', m]),
    ...figures,
    '',
  ].join('\n');
});
const kindsText =
  `# Device kinds\n\nMade from the code by \`npm run docs\`. Figures can be replaced ` +
  `on a device (\`figures\`), settings on a device or in a sound ` +
  `(\`settings\`).\n\n${kinds.join('\n')}\n## Order rules\n\nThe ids for ` +
  `\`order.stances\`.\n\n| rule | thing | usual | other school |\n| --- | --- | --- | ` +
  `--- |\n${ORDER_RULES.map((r) => `| \`${r.id}\` | ${r.thing} | ${r.main} | ${r.other} |`).join('\n')}\n`;

let stale = 0;
for (const [path, text] of [
  ['docs/rig.schema.json', schema],
  ['docs/kinds.md', kindsText],
] as const) {
  if (!process.argv.includes('--check')) writeFileSync(path, text);
  else if (!existsSync(path) || readFileSync(path, 'utf8') !== text) {
    stale++;
    process.stderr.write(`${path} is not current; run "npm run docs"\n`);
  }
}
process.exitCode = stale ? 1 : 0;
