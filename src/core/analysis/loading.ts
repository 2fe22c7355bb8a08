import { kindOf } from '../kinds';
import { insertFix } from '../findings/insert-fix';
import { fixed, withPrefix } from '../units';
import type { Remarker } from './remarks';

/** Bridging, an input of ten times the source's impedance, loses 0.83 dB; more is worth a word. */
export const BRIDGING_LOSS_DB = -0.83;

/**
 * Level lost into inputs that load what feeds them. Where a pickup feeds a kind that wants to load it, or the volume is part
 * of the loss on purpose (a pot), nothing is said.
 */
export const loadingRemarks: Remarker = ({ ctx, stations, tones }) =>
  stations.flatMap((s) => {
    const { input } = s;
    if (!input || input.lossDb === null || input.lossDb >= BRIDGING_LOSS_DB || input.sourceOhms === null || input.loadOhms === null) return [];
    const device = ctx.device(s.device);
    const section = ctx.flowing.circuit.sections[ctx.flowing.circuit.nets[ctx.at(s.device, s.ins[0]!).net]!.section]!;
    const listens = tones.some((t) => t.listener === s.device && section.drivers.some((d) => d.device === t.driver));
    const byPot = section.resistors.length > 0;
    if (!listens || byPot || (kindOf(device.kind).wantsBarePickup && s.state === 'engaged') || input.loadOhms < 100) return [];
    const driver = section.drivers[0]!;
    // A pickup into a usual input stays well under this; only a real load counts.
    const bare = driver.source?.bare === true;
    if (bare && input.lossDb > -3) return [];
    const lead = ctx.rig.leads.find((l) => l.to.device === s.device && l.to.jack === s.ins[0]);
    return [{
      rule: 'loading',
      severity: 'caution' as const,
      subjects: [s.device, driver.device],
      what: `${device.name} loads ${ctx.device(driver.device).name}.`,
      why: `${withPrefix(input.sourceOhms, 'Ω')} feeds ${withPrefix(input.loadOhms, 'Ω')} in all, which costs ${fixed(-input.lossDb)} dB at 1 kHz; ten times the source impedance would cost under 0.9 dB.`,
      fix: lead && insertFix(ctx.rig, 'buffer', 'Buffer', lead.id, `Put a buffer in front of ${device.name}`),
    }];
  });
