import type { Pass } from '../kinds';

/** Inside a host the figures are numbers: this much over full scale they still do not clip, in dBu. */
const INSIDE_CEILING_DBU = 40;

/**
 * A device's passes when it lives inside a host as a block: links cost nothing, so inputs load
 * nothing and outputs are stiff; the host's converters have their own noise and latency, so the
 * block adds neither; only clipping that is meant remains.
 */
export function asBlock(pass: Pass): Pass {
  if (pass.is !== 'stage') return pass;
  const ceiling = pass.ceiling.meant ? pass.ceiling : { ...pass.ceiling, dbu: INSIDE_CEILING_DBU };
  return Object.assign({}, pass, {
    inOhms: Infinity,
    inFarads: undefined,
    outOhms: 0.01,
    noiseDbu: -Infinity,
    latencyMs: 0,
    ceiling,
  });
}
